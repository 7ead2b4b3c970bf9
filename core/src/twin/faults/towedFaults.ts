import { holeConductance } from '../equations/flow';
import type { Twin } from '../twin';
import { towedPrefix } from '../network/network';
import { between, blocked, leak, seat, type Fault } from './fault';
import { loadFaults } from './loadFaults';

/** What can be wrong with a towed unit, by its place in the rig and what it is called. */
export function towedFaults(unit: number, title: string, twin: Twin, freezes: boolean): Fault[] {
  const at = towedPrefix(unit);
  const found: Fault[] = [
    leak(`${at}tank`, `${title} tank`, 'leaks at its drain or a joint', 2),
    leak(`${at}supply line`, `${title} supply line`, 'its supply coupler seal leaks', 2),
    leak(
      `${at}service line`,
      `${title} service line`,
      'its service coupler seal leaks, applied',
      2,
    ),
    {
      ...leak(`${at}left`, `${title} left`, 'a chamber diaphragm leaks on the service side', 2),
      oneSide: true,
    },
    seat(`${at}relay: exhaust`, `${title} relay`, 'its exhaust does not seal', 2),
    seat(`${at}relay: inlet`, `${title} relay`, 'its inlet does not seal', 2, 0.01),
    {
      id: `${at}relay crack`,
      at: `${at}relay: inlet`,
      part: `${title} relay`,
      title: 'opens late: its crack pressure is not that of the others',
      hard: 3,
      apply: (on, severity) => on.shift(`${at}relay: inlet`, -between(4, 9, severity), 1),
    },
    blocked(`${at}relay: exhaust`, `${title} relay`, 'its exhaust is blocked: it drags', 2),
    {
      id: `${at}cock`,
      at: `${at}supply coupler`,
      part: `${title} supply cock`,
      title: 'shut in front: no air comes in',
      hard: 1,
      apply: (on) => on.block(`${at}supply coupler`, 0),
    },
    {
      id: `${at}crossed`,
      at: `${at}supply coupler`,
      part: `${title} couplers`,
      title: 'crossed: the springs stay on',
      hard: 1,
      apply: (on) => on.couple(unit, 'crossed'),
    },
  ];
  if (freezes) {
    found.push(
      blocked(`${at}supply coupler`, `${title} supply line`, 'iced: it fills slowly', 2, 0.03, 0),
    );
  }
  if (twin.hasPlace(`${at}left spring`)) {
    found.push(leak(`${at}spring line`, `${title} spring line`, 'leaks on the spring side', 2), {
      id: `${at}centre seal`,
      at: `${at}left centre seal`,
      part: `${title} spring brake chamber`,
      title: 'its centre seal passes hold-off air into the service side',
      hard: 3,
      oneSide: true,
      apply: (on, severity) =>
        on.pierce(`${at}left centre seal`, holeConductance(between(0.4, 1.4, severity))),
    });
  }
  if (twin.hasWay(`${at}load-sensing valve: inlet`)) found.push(...loadFaults(at, `${title} `));
  return found;
}
