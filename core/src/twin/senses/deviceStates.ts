import type { Twin } from '../twin';

/** What a valve that meters does: it applies, it lets go, or it holds what is there ("laps"). */
export type DeviceState = 'on' | 'off' | 'hold';

/** A valve and its state. */
export interface Device {
  /** Found by this. */
  id: string;
  /** Only ever shown. */
  name: string;
  state: DeviceState;
}

/** A seat that is open less than this is shut. */
const SHUT = 0.002;
/** With less than this in its delivery, psi, a valve stands open to its exhaust: it is off, and holds nothing. */
const EMPTY_PSI = 1;

/** State of each valve that has an inlet and an exhaust of its own, at the moment asked for last. */
export function deviceStates(twin: Twin): Device[] {
  const { elements, nodes } = twin.system.network;
  return elements.flatMap((inlet) => {
    if (inlet.does !== 'inlet' || inlet.valve === null) return [];
    const exhaust = elements.find(
      ({ does, valve }) => does === 'exhaust' && valve?.id === inlet.valve?.id,
    );
    const delivery = nodes[inlet.to];
    if (!exhaust || !delivery) return [];
    const isEmpty = twin.psi(delivery.id) < EMPTY_PSI;
    const state: DeviceState =
      twin.openOf(inlet.id) > SHUT && !isEmpty
        ? 'on'
        : isEmpty || twin.openOf(exhaust.id) > SHUT
          ? 'off'
          : 'hold';
    return [{ ...inlet.valve, state }];
  });
}
