import type { Twin } from '../twin';

/** What a valve that meters does: it applies, it lets go, or it holds what is there ("laps"). */
export type DeviceState = 'on' | 'off' | 'hold';

/** A valve by what it does, and its state. */
export interface Device {
  name: string;
  state: DeviceState;
}

/** A seat that is open less than this is shut. */
const SHUT = 0.002;
/** With less than this in its delivery, psi, a valve stands open to its exhaust: it is off, and holds nothing. */
const EMPTY_PSI = 1;

const INLET = ': inlet';

/** State of each valve that has an inlet and an exhaust of its own, at the moment asked for last. */
export function deviceStates(twin: Twin): Device[] {
  const { elements, nodes } = twin.system.network;
  return elements.flatMap(({ name, to }) => {
    if (!name.endsWith(INLET)) return [];
    const device = name.slice(0, -INLET.length);
    const delivery = nodes[to]?.name;
    if (delivery === undefined || !twin.hasWay(`${device}: exhaust`)) return [];
    const isEmpty = twin.psi(delivery) < EMPTY_PSI;
    const state: DeviceState =
      twin.openOf(name) > SHUT && !isEmpty
        ? 'on'
        : isEmpty || twin.openOf(`${device}: exhaust`) > SHUT
          ? 'off'
          : 'hold';
    return [{ name: device, state }];
  });
}
