import type { Twin } from '../twin';
import { type Fault } from './fault';
import { line, type GradedEffect } from '../graded';
import { modulatorLeak, relayFaults, wheelFaults } from './axleFaults';
import { loadFaults } from './loadFaults';
import { fault, leak, narrowed, pierced, seat, seatShare, shut, watery } from './makers';

/** What a released foot valve lets its exhaust open by, psi: a fault that holds it must first take that away. */
export const RELEASED_PSI = 6;

/** What can be wrong with the two circuits: tanks, their checks, the foot valve, and what is behind it. */
export function circuitFaults(twin: Twin): Fault[] {
  return [
    ...tankFaults(twin, 'primary'),
    ...(twin.hasPlace('secondary tank') ? tankFaults(twin, 'secondary') : []),
    pierced('accessory take-off', {
      part: 'suspension or another accessory',
      title: 'leaks behind its protection valve: the fall ends at about 60 psi',
      hard: 2,
      prior: 2,
    }),
    ...footValveFaults(twin),
    ...relayFaults(twin, 'rear relay', 'rear relay'),
    ...leftWheels(twin, 'rear').flatMap((at) => wheelFaults(twin, at, at)),
    ...leftWheels(twin, 'front').flatMap((at) => wheelFaults(twin, at, at)),
    modulatorLeak('rear modulator: exhaust', 'rear antilock modulator'),
    modulatorLeak('front modulator: exhaust', 'front antilock modulator'),
    ...(twin.hasWay('rear control line')
      ? [
          narrowed('rear control line', {
            part: 'rear relay control line',
            title: 'restricted: the axle is late',
            hard: 3,
            prior: 0.5,
          }),
        ]
      : []),
    seat(twin, 'front quick-release: exhaust', {
      part: 'front quick-release',
      title: 'its exhaust does not seal, applied',
      hard: 2,
    }),
    narrowed(
      'front quick-release: exhaust',
      {
        part: 'front quick-release',
        title: 'its exhaust is blocked: the front drags',
        hard: 2,
      },
      'quick-release blocked',
    ),
    ...['', 'front '].flatMap((axle) =>
      twin.hasWay(`${axle}load-sensing valve: inlet`) ? loadFaults(twin, axle, axle) : [],
    ),
    ...doubleCheckFaults(twin),
  ];
}

/** Where the left wheels of each axle group of an end are, such as `rear left` and `rear 2 left`. */
const leftWheels = ({ system }: Twin, end: 'front' | 'rear'): string[] =>
  system.network.nodes
    .filter(
      ({ id, kind, unit }) =>
        kind === 'service chamber' && unit === 0 && id.startsWith(end) && id.endsWith('left'),
    )
    .map(({ id }) => id);

function tankFaults(twin: Twin, circuit: 'primary' | 'secondary'): Fault[] {
  const part = `${circuit} tank`;
  const check = `${circuit} supply check valve`;
  return [
    leak(part, { part, title: 'leaks at a joint', hard: 1, prior: 2 }),
    seat(twin, `${circuit} drain`, { part: `${part} drain`, title: 'does not close', hard: 1 }),
    watery(part, part),
    fault(
      `${circuit} check`,
      `${circuit} check`,
      { part: check, title: 'does not hold the tank', hard: 3 },
      [{ does: 'hold open', way: `${circuit} check`, share: seatShare(twin, `${circuit} check`) }],
    ),
    narrowed(`${circuit} check`, {
      part: check,
      title: 'stuck nearly shut: its tank fills late',
      hard: 2,
      prior: 0.5,
    }),
  ];
}

function footValveFaults(twin: Twin): Fault[] {
  const part = 'foot valve';
  const halves = ['primary', 'secondary'] as const;
  return [
    ...halves.flatMap((half) => [
      seat(twin, `foot valve, ${half}: exhaust`, {
        part,
        title: `its ${half} exhaust does not seal, applied`,
        hard: 2,
      }),
      seat(twin, `foot valve, ${half}: inlet`, {
        part,
        title: `its ${half} inlet does not seal`,
        hard: 2,
      }),
    ]),
    fault(
      'foot valve stays',
      'foot valve, primary: exhaust',
      { part, title: 'does not return fully: the brakes drag', hard: 2 },
      halves.map((half): GradedEffect => ({
        does: 'shift',
        way: `foot valve, ${half}: exhaust`,
        psi: line(-2 - RELEASED_PSI, -10 - RELEASED_PSI),
      })),
    ),
  ];
}

function doubleCheckFaults(twin: Twin): Fault[] {
  if (!twin.hasWay('dash double check: first')) return [];
  return [
    fault(
      'dash double check',
      'dash double check: first',
      {
        part: 'dash double check valve',
        title: 'passes from one circuit into the other',
        hard: 3,
      },
      ['first', 'second'].map((side): GradedEffect => ({
        does: 'hold open',
        way: `dash double check: ${side}`,
        share: seatShare(twin, `dash double check: ${side}`),
      })),
    ),
    shut('dash double check stuck', 'dash double check: second', {
      part: 'dash double check valve',
      title: 'stuck on the primary side: it does not go over',
      hard: 3,
      prior: 0.3,
    }),
  ];
}
