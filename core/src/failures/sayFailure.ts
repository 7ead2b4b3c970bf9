import type { OpenFailure, PressureUnit } from '@keen-bleed/contract';
import { sayFigureLine } from '../reading/figureWords';

/** An open failure in one line, such as `Static leak 4.9 psi/min, allowed at most 2`. */
export function sayFailure(
  { title, figure, said }: Pick<OpenFailure, 'title' | 'figure' | 'said'>,
  unit: PressureUnit = 'psi',
): string {
  if (figure) return sayFigureLine(figure, unit);
  return `${title}: ${said ?? ''}`;
}
