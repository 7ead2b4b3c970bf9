import { useLayoutEffect, useRef } from 'react';

/** What the keys of a run do. */
export interface RunKeys {
  mark: () => void;
  nudge: (moves: number) => void;
  undo: () => void;
  usual: () => void;
  next: () => void;
  help: () => void;
}

/** Keys by what they do, as the help shows them. */
export const keyHelp: readonly (readonly [string, string])[] = [
  ['Space', 'mark, wherever the focus is'],
  ['Enter', 'mark; on a button, press it'],
  ['Arrow up, right', 'move the reading up'],
  ['Arrow down, left', 'move the reading down'],
  ['Page up, Page down', 'move it by ten'],
  ['G', 'answer the next line: as it should be'],
  ['U', 'undo'],
  ['N', 'go on without this step'],
  ['?', 'show or hide these keys'],
];

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
const pressable = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest('button, a, [role="button"], [role="radio"]') !== null;

/** The pad marks by itself, and Space chooses where one of several is chosen. */
const keepsSpace = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest('[data-testid="pad"], [role="radio"], [role="checkbox"], [role="switch"]') !==
    null;

/** Lets a run be driven by keys: Space marks wherever the focus is, a focused button keeps its Enter. */
export function useRunKeys(keys: RunKeys, active: boolean): void {
  const latest = useRef(keys);
  // Before the screen is drawn: a key that answers what is seen must find what belongs to it.
  useLayoutEffect(() => {
    latest.current = keys;
  });
  useLayoutEffect(() => {
    if (!active) return undefined;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || typing(event.target)) return;
      const does: Record<string, () => void> = {
        ArrowUp: () => latest.current.nudge(1),
        ArrowRight: () => latest.current.nudge(1),
        ArrowDown: () => latest.current.nudge(-1),
        ArrowLeft: () => latest.current.nudge(-1),
        PageUp: () => latest.current.nudge(10),
        PageDown: () => latest.current.nudge(-10),
        u: () => latest.current.undo(),
        U: () => latest.current.undo(),
        g: () => latest.current.usual(),
        G: () => latest.current.usual(),
        n: () => latest.current.next(),
        N: () => latest.current.next(),
        '?': () => latest.current.help(),
        ...(keepsSpace(event.target) ? {} : { ' ': () => latest.current.mark() }),
        ...(pressable(event.target) ? {} : { Enter: () => latest.current.mark() }),
      };
      const act = does[event.key];
      if (!act || (event.repeat && (event.key === ' ' || event.key === 'Enter'))) return;
      event.preventDefault();
      // The button that has the focus must not take it for its own.
      event.stopPropagation();
      act();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [active]);
}
