import { memo, type ReactNode } from 'react';

interface SteadyProps {
  /** What the drawing goes by, in a few words: the same words, the same drawing. */
  by: string;
  render: () => ReactNode;
}

/** Part of a screen that is told of something new many times a second, and drawn anew only when what it goes by changes. */
export const Steady = memo(
  function Steady({ render }: SteadyProps) {
    return render();
  },
  (before, now) => before.by === now.by,
);
