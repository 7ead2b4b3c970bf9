import type { Twin } from '../twin';
import { RELEASED_PSI } from './circuitFaults';
import { type Fault } from './fault';
import { line } from '../graded';
import { fault, leak, narrowed, OUT_OF_REACH_PSI, seat, shut } from './makers';

/** What can be wrong with what a powered unit works its trailer with. */
export function trailerControlFaults(twin: Twin): Fault[] {
  const found: Fault[] = [];
  if (twin.hasPlace('trailer supply line')) {
    found.push(
      leak('trailer supply line', {
        part: 'trailer supply line',
        title: 'leaks: only with the trailer supplied',
        hard: 2,
      }),
      leak('trailer service line', {
        part: 'trailer service line',
        title: 'leaks: only with the pedal down',
        hard: 2,
      }),
    );
  }
  if (twin.hasLatch('trailer supply valve')) found.push(...dashFaults(twin));
  if (twin.hasWay('trailer control valve: inlet')) found.push(...numberedFaults(twin));
  return found;
}

function dashFaults(twin: Twin): Fault[] {
  const part = 'trailer supply valve';
  return [
    fault('trailer supply stuck', part, { part, title: 'stuck: it does not pop out', hard: 1 }, [
      { does: 'set', latch: part, lowBy: -OUT_OF_REACH_PSI },
    ]),
    fault('trailer supply high', part, { part, title: 'pops out too early', hard: 1 }, [
      { does: 'set', latch: part, lowBy: line(6, 25) },
    ]),
    fault('trailer supply low', part, { part, title: 'pops out too late', hard: 1 }, [
      { does: 'set', latch: part, lowBy: line(-6, -25) },
    ]),
    seat(twin, `${part}: exhaust`, { part, title: 'leaks at its exhaust', hard: 2 }),
    seat(twin, 'tractor protection', {
      part: 'tractor protection valve',
      title: 'does not shut',
      hard: 3,
    }),
    fault(
      'hand valve on',
      'hand valve: inlet',
      { part: 'hand valve', title: 'not fully off: air at the service coupler', hard: 2 },
      [
        { does: 'shift', way: 'hand valve: inlet', psi: line(1 + RELEASED_PSI, 10 + RELEASED_PSI) },
        {
          does: 'shift',
          way: 'hand valve: exhaust',
          psi: line(-1 - RELEASED_PSI, -10 - RELEASED_PSI),
        },
      ],
    ),
    seat(twin, 'hand valve: inlet', {
      part: 'hand valve',
      title: 'its inlet does not seal: it blows at its exhaust, off',
      hard: 2,
    }),
    shut('foot double check stuck', 'foot double check: second', {
      part: 'foot double check valve',
      title: 'stuck on the primary side: with primary lost the trailer does not brake',
      hard: 3,
      prior: 0.3,
    }),
  ];
}

function numberedFaults(twin: Twin): Fault[] {
  const part = 'trailer control valve';
  return [
    seat(twin, `${part}: inlet`, {
      part,
      title: 'its inlet does not seal: air at the service coupler',
      hard: 2,
    }),
    seat(twin, `${part}: exhaust`, { part, title: 'leaks at 3', hard: 2 }),
    narrowed('hand brake valve: drive', {
      part: `${part}, port 43`,
      title: 'its line is narrowed: the trailer releases late',
      hard: 3,
    }),
  ];
}
