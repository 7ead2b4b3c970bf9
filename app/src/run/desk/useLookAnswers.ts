import { itemsOf, type Step } from '@keen-bleed/core';
import { useMemo, useState } from 'react';

export type Answers = Readonly<Record<string, string>>;

/** The answers of a step of looking as they stand: the usual one until another is chosen. */
export function useLookAnswers(step: Step | null): {
  answers: Answers;
  answer: (key: string, value: string) => void;
} {
  const [answered, setAnswered] = useState<{ stepId: string; answers: Answers } | null>(null);
  const answers = useMemo(() => {
    if (!step) return {};
    const usual = itemsOf(step).map((item) => [item.key, item.options[0]?.value ?? ''] as const);
    return {
      ...Object.fromEntries(usual),
      ...(answered?.stepId === step.id ? answered.answers : {}),
    };
  }, [answered, step]);
  return {
    answers,
    answer: (key, value) => {
      if (!step) return;
      const before = answered?.stepId === step.id ? answered.answers : {};
      setAnswered({ stepId: step.id, answers: { ...before, [key]: value } });
    },
  };
}
