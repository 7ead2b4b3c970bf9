import type { Twin } from '../twin';
import { type Fault } from './fault';
import { line } from '../graded';
import { fault, leak, narrowed, seat, shut } from './makers';

/** What can be wrong between the dash and the springs of a powered unit. */
export function parkFaults(twin: Twin): Fault[] {
  const found: Fault[] = [];
  if (twin.hasPlace('spring line')) {
    found.push(
      leak('spring line', {
        part: 'spring line',
        title: 'leaks on the spring side: only with the park brake released',
        hard: 2,
        prior: 2,
      }),
      seat(twin, 'park relay: exhaust', {
        part: 'park relay',
        title: 'its exhaust does not seal, released',
        hard: 2,
      }),
      seat(twin, 'park relay: inlet', {
        part: 'park relay',
        title: 'its inlet does not seal, parked',
        hard: 2,
      }),
      leak('park line', {
        part: 'park line',
        title: 'leaks with the park brake released',
        hard: 2,
      }),
    );
  }
  if (twin.hasWay('anti-compounding check: second')) found.push(...antiCompoundingFaults());
  if (twin.hasWay('modulating valve: control')) found.push(...modulatingFaults());
  if (twin.hasWay('park valve: exhaust')) {
    const part = 'park valve';
    found.push(
      seat(twin, 'park valve: exhaust', {
        part,
        title: 'leaks at its exhaust, pushed in',
        hard: 2,
      }),
      seat(twin, 'park valve: feed', {
        part,
        title: 'its inlet does not seal: it blows at its exhaust, pulled out',
        hard: 2,
      }),
      fault('park valve low', 'park valve', { part, title: 'pops out too late', hard: 1 }, [
        { does: 'set', latch: 'park valve', lowBy: line(-8, -30) },
      ]),
      fault('park valve high', 'park valve', { part, title: 'pops out too early', hard: 1 }, [
        { does: 'set', latch: 'park valve', lowBy: line(6, 30) },
      ]),
    );
  }
  if (twin.hasWay('hand brake valve: exhaust')) {
    found.push(
      seat(twin, 'hand brake valve: exhaust', {
        part: 'hand brake valve',
        title: 'leaks at 3, released',
        hard: 2,
      }),
    );
  }
  return found;
}

function antiCompoundingFaults(): Fault[] {
  const part = 'anti-compounding check';
  return [
    shut('anti-compounding missing', 'anti-compounding check: second', {
      part,
      title: 'missing or blocked: parked and applied, spring and service add',
      hard: 3,
      prior: 0.5,
    }),
    narrowed('anti-compounding check: first', {
      part,
      title: 'blocked on the park side: the springs release late or not at all',
      hard: 2,
      prior: 0.3,
    }),
    fault(
      'anti-compounding stuck',
      'anti-compounding check: second',
      { part, title: 'sticks: its shuttle goes over late', hard: 3, prior: 0.5 },
      [{ does: 'shift', way: 'anti-compounding check: second', psi: line(-6, -60) }],
    ),
  ];
}

function modulatingFaults(): Fault[] {
  const part = 'modulating valve';
  return [
    shut('modulating valve dead', 'modulating valve: control', {
      part,
      title: 'it, or its control line, does nothing: with primary lost the rear does not brake',
      hard: 3,
    }),
    fault(
      'modulating valve on',
      'modulating valve: control',
      { part, title: 'stays on: each application takes from the hold-off', hard: 2, prior: 0.5 },
      [
        { does: 'hold open', way: 'modulating valve: control', share: line(0.2, 1) },
        { does: 'narrow', way: 'modulating valve: rest', share: 0 },
      ],
    ),
  ];
}
