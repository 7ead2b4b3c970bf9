import { holeConductance } from '../equations/flow';
import type { Twin } from '../twin';
import { between, blocked, leak, seat, type Fault } from './fault';
import { loadFaults } from './loadFaults';

/** What can be wrong with a towed unit, by its name in the network. */
export function towedFaults(name: string, twin: Twin, freezes: boolean): Fault[] {
  const found: Fault[] = [
    leak(`${name} tank`, 'leaks at its drain or a joint', 2),
    leak(`${name} supply line`, 'its supply coupler seal leaks', 2),
    leak(`${name} service line`, 'its service coupler seal leaks, applied', 2),
    { ...leak(`${name} left`, 'a chamber diaphragm leaks on the service side', 2), oneSide: true },
    seat(`${name} relay: exhaust`, `${name} relay`, 'its exhaust does not seal', 2),
    seat(`${name} relay: inlet`, `${name} relay`, 'its inlet does not seal', 2, 0.01),
    {
      id: `${name} relay crack`,
      part: `${name} relay`,
      title: 'opens late: its crack pressure is not that of the others',
      hard: 3,
      apply: (on, severity) => on.shift(`${name} relay: inlet`, -between(4, 9, severity), 1),
    },
    blocked(`${name} relay: exhaust`, `${name} relay`, 'its exhaust is blocked: it drags', 2),
    {
      id: `${name} cock`,
      part: `${name} supply cock`,
      title: 'shut in front: no air comes in',
      hard: 1,
      apply: (on) => on.block(`${name} supply coupler`, 0),
    },
    {
      id: `${name} crossed`,
      part: `${name} couplers`,
      title: 'crossed: the springs stay on',
      hard: 1,
      apply: (on) => on.couple(name, 'crossed'),
    },
  ];
  if (freezes) {
    found.push(
      blocked(`${name} supply coupler`, `${name} supply line`, 'iced: it fills slowly', 2, 0.03, 0),
    );
  }
  if (twin.hasPlace(`${name} left spring`)) {
    found.push(leak(`${name} spring line`, 'leaks on the spring side', 2), {
      id: `${name} centre seal`,
      part: `${name} spring brake chamber`,
      title: 'its centre seal passes hold-off air into the service side',
      hard: 3,
      oneSide: true,
      apply: (on, severity) =>
        on.pierce(`${name} left centre seal`, holeConductance(between(0.4, 1.4, severity))),
    });
  }
  if (twin.hasWay(`${name} load-sensing valve: inlet`)) found.push(...loadFaults(`${name} `));
  return found;
}
