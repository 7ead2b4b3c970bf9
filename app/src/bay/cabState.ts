import type { CouplerState, Twin } from '@keen-bleed/core/twin';
import type { BayMove, HandBrake } from './bayProtocol';

/** A hand brake drawn half way asks for this in the park line, psi. */
const PARTLY_PSI = 55;

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

/** What a hand can do that moves air. */
export type HandMove = Exclude<BayMove, { kind: 'fault' | 'speed' }>;

/** Does it on the rig, and says how the cab stands then. */
export function moveHand(cab: CabState, twin: Twin, move: HandMove): CabState {
  switch (move.kind) {
    case 'engine':
      twin.engine(move.rpm);
      return cab;
    case 'pedal':
      twin.ask('pedal', move.psi);
      return { ...cab, pedalPsi: move.psi };
    case 'hand':
      twin.ask('hand valve', move.psi);
      return { ...cab, handPsi: move.psi };
    case 'park':
      twin.dash('park valve', move.isIn);
      return cab;
    case 'trailer':
      twin.dash('trailer supply valve', move.isIn);
      return cab;
    case 'hand-brake':
      twin.dash('park valve', move.at === 'released' || move.at === 'part');
      if (move.at === 'part') twin.ask('hand brake', PARTLY_PSI);
      if (move.at === 'test') twin.testPosition(true);
      return { ...cab, handBrake: move.at };
    case 'open': {
      twin.open(move.way, move.share);
      const opened = new Set(cab.opened);
      if (move.share > 0) opened.add(move.way);
      else opened.delete(move.way);
      return { ...cab, opened };
    }
    case 'couple': {
      const [first, ...others] = twin.towedUnits;
      if (first !== undefined) twin.couple(first, move.how);
      // What comes apart does so behind the truck; what is crossed is crossed all along.
      for (const unit of others) twin.couple(unit, move.how === 'crossed' ? 'crossed' : 'right');
      return { ...cab, coupling: move.how };
    }
  }
}
