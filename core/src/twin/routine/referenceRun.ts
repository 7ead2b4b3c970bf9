import type { Twin } from '../twin';
import type { Act } from './act';
import { RoutinePlayer } from './player';
import type { Routine, RoutineStep } from './routine';

const FULL_PSI = 150;

const at = (s: number, act: Act): RoutineStep[] => [
  { step: 'at', s },
  { step: 'act', acts: [act] },
];
const press = (atS: number, psi: number) => at(atS, { kind: 'pedal', psi });

/**
 * A whole run by the book in 900 s: built up from 60 psi, four pumps to cut-in and up again, both holds of a minute,
 * 25 full applications down past the warning and the pop-out, and built up again.
 */
export function referenceRoutine(): Routine {
  const steps: RoutineStep[] = [
    ...at(0, { kind: 'engine', rpm: 1400 }),
    ...at(1, { kind: 'park', isIn: true }),
    ...at(2, { kind: 'trailer', isIn: true }),
  ];
  for (let n = 0; n < 4; n += 1) {
    steps.push(...press(330 + 10 * n, FULL_PSI), ...press(334 + 10 * n, 0));
  }
  steps.push(...at(460, { kind: 'engine', rpm: 0 }));
  // 470 to 530: the hold with brakes released; 535 to 600 with the pedal down.
  steps.push(...press(532, FULL_PSI), ...press(602, 0));
  for (let n = 0; n < 25; n += 1) {
    steps.push(...press(606 + 4 * n, FULL_PSI), ...press(608 + 4 * n, 0));
  }
  steps.push(...at(715, { kind: 'engine', rpm: 1400 }));
  return steps;
}

/** Length of the run, s. */
export const REFERENCE_S = 900;

/** Lets a twin go through the run up to a moment. */
export function driveByTheBook(twin: Twin, toS: number = REFERENCE_S): void {
  new RoutinePlayer(twin, referenceRoutine()).advanceTo(toS);
}
