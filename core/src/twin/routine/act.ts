import type { CouplerState } from '../couplerState';
import type { Twin } from '../twin';

/** A hand brake drawn half way asks for this in the park line, psi. */
export const PARTLY_PSI = 55;

/** Where a hand brake valve stands. */
export type HandBrake = 'released' | 'part' | 'parked' | 'test';

/** What a hand or a foot does to a rig. */
export type Act =
  | { kind: 'engine'; rpm: number }
  | { kind: 'pedal'; psi: number }
  | { kind: 'hand'; psi: number }
  | { kind: 'park'; isIn: boolean }
  | { kind: 'trailer'; isIn: boolean }
  | { kind: 'hand-brake'; at: HandBrake }
  /** Drains, cocks, the shop's valves. */
  | { kind: 'open'; way: string; share: number }
  | { kind: 'couple'; how: CouplerState };

/** Does it on a twin. */
export function actOn(twin: Twin, act: Act): void {
  switch (act.kind) {
    case 'engine':
      twin.engine(act.rpm);
      break;
    case 'pedal':
      twin.ask('pedal', act.psi);
      break;
    case 'hand':
      twin.ask('hand valve', act.psi);
      break;
    case 'park':
      twin.dash('park valve', act.isIn);
      break;
    case 'trailer':
      twin.dash('trailer supply valve', act.isIn);
      break;
    case 'hand-brake':
      twin.dash('park valve', act.at === 'released' || act.at === 'part');
      if (act.at === 'part') twin.ask('hand brake', PARTLY_PSI);
      if (act.at === 'test') twin.testPosition(true);
      break;
    case 'open':
      twin.open(act.way, act.share);
      break;
    case 'couple': {
      const [first, ...others] = twin.towedUnits;
      if (first !== undefined) twin.couple(first, act.how);
      // What comes apart does so behind the truck; what is crossed is crossed all along.
      for (const unit of others) twin.couple(unit, act.how === 'crossed' ? 'crossed' : 'right');
      break;
    }
  }
}
