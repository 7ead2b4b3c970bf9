import { itemsOf, type LookItem, type Step } from '@keen-bleed/core';
import { useMemo, useState } from 'react';

export type Answers = Readonly<Record<string, string>>;

/** Answers of a step of looking: none stands before it is given. */
export interface LookAnswers {
  answers: Answers;
  answer: (key: string, value: string) => void;
  /** The first thing that is asked and not answered yet. */
  open: LookItem | null;
  openCount: number;
}

const nothing: Answers = {};

/** The answers given so far in the step that is waited on. */
export function useLookAnswers(step: Step | null): LookAnswers {
  const [answered, setAnswered] = useState<{ stepId: string; answers: Answers } | null>(null);
  const answers = step && answered?.stepId === step.id ? answered.answers : nothing;
  const open = useMemo(
    () => (step ? itemsOf(step).filter(({ key }) => answers[key] === undefined) : []),
    [answers, step],
  );
  return {
    answers,
    answer: (key, value) => {
      if (!step) return;
      // From what was answered last, drawn or not: keys come faster than a slow phone draws.
      setAnswered((before) => ({
        stepId: step.id,
        answers: { ...(before?.stepId === step.id ? before.answers : nothing), [key]: value },
      }));
    },
    open: open[0] ?? null,
    openCount: open.length,
  };
}
