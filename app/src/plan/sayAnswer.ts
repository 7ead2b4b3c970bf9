import type { PressureUnit } from '@keen-bleed/contract';
import { rounded, sayPressure } from '@keen-bleed/core';
import { curveOf, pairFigures, sayCurve } from '@keen-bleed/core/bench';
import { sayFigures } from '../curve/figureWords';
import { gradeTitles, type AnswerShape, type CheckAnswer } from '@keen-bleed/core/checks';

/** A found answer in words. */
export function sayAnswer(
  answer: CheckAnswer,
  shape: AnswerShape | null,
  unit: PressureUnit,
): string {
  switch (answer.kind) {
    case 'grade':
      return gradeTitles[answer.grade] ?? answer.grade;
    case 'choice':
      return (
        (shape?.kind === 'choice'
          ? shape.choices.find(({ id }) => id === answer.choice)?.title
          : null) ?? answer.choice
      );
    case 'number': {
      const measure = shape?.kind === 'number' ? shape.unit : 'psi';
      if (measure === 'psi') return sayPressure(answer.value, unit);
      if (measure === 'psi/min') return `${sayPressure(answer.value, unit)} a minute`;
      return `${rounded(answer.value, measure === 's' ? 2 : 0)} ${measure}`;
    }
    case 'points':
      return sayPoints(answer, shape, unit);
  }
}

/** From line to line of the dials a shop has, psi. */
const DIVISION_PSI = 2;

/** What points come to; the points themselves where they come to nothing yet. */
function sayPoints(
  { points, compared = false }: Extract<CheckAnswer, { kind: 'points' }>,
  shape: AnswerShape | null,
  unit: PressureUnit,
): string {
  const as = shape?.kind === 'points' ? (shape.as ?? 'follows') : 'follows';
  if (as !== 'follows') {
    const figures = pairFigures(as, points, { divisionPsi: DIVISION_PSI, compared });
    if (!('wants' in figures)) return sayFigures(figures, unit);
  }
  const curve = curveOf(points, { divisionPsi: DIVISION_PSI, compared });
  const said =
    'crack' in curve
      ? `${sayCurve(curve, unit).join('; ')}; ${points.length} points`
      : points
          .map(([from, to]) => `${sayPressure(from, unit)} in, ${sayPressure(to, unit)} out`)
          .join('; ');
  return said.slice(0, 200);
}
