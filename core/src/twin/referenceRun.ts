import type { Twin } from './twin';

/** What a run by the book does to a rig, second by second, in the order of the steps. */
export interface Move {
  atS: number;
  what: string;
  does: (twin: Twin) => void;
}

const press = (atS: number, psi: number): Move => ({
  atS,
  what: psi > 0 ? 'pedal down' : 'pedal up',
  does: (twin) => twin.ask('pedal', psi),
});

const FULL_PSI = 150;

/**
 * A whole run in 900 s: built up from 60 psi, four pumps to cut-in and up again, both holds of a minute, 25 full
 * applications down past the warning and the pop-out, and built up again.
 */
export function referenceMoves(): Move[] {
  const moves: Move[] = [
    { atS: 0, what: 'engine on', does: (twin) => twin.engine(1400) },
    {
      atS: 1,
      what: 'parking brakes off',
      does: (twin) => twin.dash('park valve', true),
    },
    {
      atS: 2,
      what: 'trailer supply on',
      does: (twin) => twin.dash('trailer supply valve', true),
    },
  ];
  for (let n = 0; n < 4; n += 1) {
    moves.push(press(330 + 10 * n, FULL_PSI), press(334 + 10 * n, 0));
  }
  moves.push({ atS: 460, what: 'engine off', does: (twin) => twin.engine(0) });
  // 470 to 530: the hold with brakes released; 535 to 600 with the pedal down.
  moves.push(press(532, FULL_PSI), press(602, 0));
  for (let n = 0; n < 25; n += 1) {
    moves.push(press(606 + 4 * n, FULL_PSI), press(608 + 4 * n, 0));
  }
  moves.push({ atS: 715, what: 'engine on', does: (twin) => twin.engine(1400) });
  return moves;
}

/** Length of the run, s. */
export const REFERENCE_S = 900;

/** Lets a twin go through moves up to a moment. */
export function drive(twin: Twin, moves: readonly Move[], toS: number): void {
  for (const move of moves) {
    if (move.atS > toS) break;
    twin.advanceTo(move.atS);
    move.does(twin);
  }
  twin.advanceTo(toS);
}
