import { towedPrefix } from '../network/network';
import type { Twin } from '../twin';
import { modulatorLeak, relayFaults, wheelFaults } from './axleFaults';
import type { Fault } from './fault';
import { loadFaults } from './loadFaults';
import { fault, leak, narrowed, seat, shut, watery } from './makers';

/** A cock that was not shut fully, or not at all. */
const LEFT_OPEN = { from: 0.002, to: 1, on: 'log' } as const;
/** Sonic conductance of a coupler's open end, m³/(s·Pa). */
const OPEN_END = 4e-8;

/** What can be wrong with a towed unit, by its place in the rig and what it is called. */
export function towedFaults(unit: number, title: string, twin: Twin, freezes: boolean): Fault[] {
  const at = towedPrefix(unit);
  const found: Fault[] = [
    leak(`${at}tank`, { part: `${title} tank`, title: 'leaks at its drain or a joint', hard: 2 }),
    watery(`${at}tank`, `${title} tank`),
    seat(twin, `${at}tank fill`, {
      part: `${title} tank check`,
      title: 'leaks back: the tank goes with the supply line',
      hard: 3,
    }),
    leak(`${at}supply line`, {
      part: `${title} supply line`,
      title: 'its supply coupler seal leaks',
      hard: 2,
      prior: 4,
    }),
    leak(`${at}service line`, {
      part: `${title} service line`,
      title: 'its service coupler seal leaks, applied',
      hard: 2,
      prior: 4,
    }),
    ...twin.system.network.nodes
      .filter(
        ({ id, kind }) => kind === 'service chamber' && id.startsWith(at) && id.endsWith('left'),
      )
      .flatMap(({ id, role }) => wheelFaults(twin, id, `${title} ${role}`)),
    ...relayFaults(twin, `${at}relay`, `${title} relay`),
    modulatorLeak(`${at}modulator: exhaust`, `${title} antilock modulator`),
    shut(`${at}cock`, `${at}supply coupler`, {
      part: `${title} supply cock`,
      title: 'shut in front: no air comes in',
      hard: 1,
    }),
    fault(
      `${at}crossed`,
      `${at}supply coupler`,
      { part: `${title} couplers`, title: 'crossed: the springs stay on', hard: 1, prior: 0.5 },
      [{ does: 'couple', unit, how: 'crossed' }],
    ),
  ];
  for (const way of ['supply cock', 'service cock'] as const) {
    if (!twin.hasWay(`${at}${way}, open end`)) continue;
    found.push(
      fault(
        `${at}${way} open`,
        `${at}${way}`,
        { part: `${title} last ${way}`, title: 'left open at the end of the rig', hard: 1 },
        [
          { does: 'hold open', way: `${at}${way}`, share: LEFT_OPEN },
          { does: 'pierce', way: `${at}${way}, open end`, conductance: OPEN_END },
        ],
      ),
    );
  }
  if (freezes) {
    found.push(
      narrowed(
        `${at}supply coupler`,
        { part: `${title} supply line`, title: 'iced: it fills slowly', hard: 2 },
        `${at}supply iced`,
      ),
    );
  }
  if (twin.hasPlace(`${at}spring line`)) {
    found.push(
      leak(`${at}spring line`, {
        part: `${title} spring line`,
        title: 'leaks on the spring side',
        hard: 2,
      }),
    );
  }
  if (twin.hasWay(`${at}load-sensing valve: inlet`)) {
    found.push(...loadFaults(twin, at, `${title} `));
  }
  return found;
}
