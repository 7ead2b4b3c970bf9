import type { PressureUnit } from '@keen-bleed/contract';
import { rounded, sayPressure } from '@keen-bleed/core';
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
      return answer.points
        .map(([from, to]) => `${sayPressure(from, unit)} in, ${sayPressure(to, unit)} out`)
        .join('; ')
        .slice(0, 200);
  }
}
