import type { LiveMark, RunState } from './runState';

/** Marks as the ladder shows them: of a hold its start and its last alone, or they would cover one another. */
export function ladderMarks({ marks, procedure }: RunState): readonly LiveMark[] {
  return marks.filter((mark, n) => {
    const act = procedure.steps.find(({ id }) => id === mark.stepId)?.act;
    if (act?.kind !== 'hold') return true;
    return mark.key === act.start.key || marks[n + 1]?.stepId !== mark.stepId;
  });
}
