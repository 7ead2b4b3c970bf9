import type { Act } from './act';
import type { RoutineStep } from './routine';

/** Does some things at once. */
export const act = (...acts: readonly Act[]): RoutineStep => ({ step: 'act', acts });

/** Waits for so long, s. */
export const wait = (s: number): RoutineStep => ({ step: 'wait', s });

/** The pedal down to so much, and up again, psi and s. */
export const pump = (psi: number, downS: number, upS: number): readonly RoutineStep[] => [
  act({ kind: 'pedal', psi }),
  wait(downS),
  act({ kind: 'pedal', psi: 0 }),
  wait(upS),
];
