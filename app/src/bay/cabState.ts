import {
  actOn,
  type Act,
  type CouplerState,
  type HandBrake,
  type Twin,
} from '@keen-bleed/core/twin';

/** How the controls, cocks and couplers stand: what the technician did, not what the air does. */
export interface CabState {
  pedalPsi: number;
  handPsi: number;
  handBrake: HandBrake;
  coupling: CouplerState;
  opened: ReadonlySet<string>;
}

/** A rig as it is walked up to: parked, its cocks as its kind has them. */
export const parkedCab = (twin: Twin): CabState => ({
  pedalPsi: 0,
  handPsi: 0,
  handBrake: 'parked',
  coupling: 'right',
  opened: new Set(
    twin.system.network.elements
      .filter(({ id, does }) => does === 'cock' && twin.openOf(id) > 0)
      .map(({ id }) => id),
  ),
});

/** Does it on the rig, and says how the cab stands then. */
export function moveHand(cab: CabState, twin: Twin, act: Act): CabState {
  actOn(twin, act);
  switch (act.kind) {
    case 'pedal':
      return { ...cab, pedalPsi: act.psi };
    case 'hand':
      return { ...cab, handPsi: act.psi };
    case 'hand-brake':
      return { ...cab, handBrake: act.at };
    case 'couple':
      return { ...cab, coupling: act.how };
    case 'open': {
      const opened = new Set(cab.opened);
      if (act.share > 0) opened.add(act.way);
      else opened.delete(act.way);
      return { ...cab, opened };
    }
    default:
      return cab;
  }
}
