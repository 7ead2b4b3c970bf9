import { useLayoutEffect, useRef, type CSSProperties } from 'react';
import type { Palette } from '../../theme/palette';
import { space } from '../../theme/space';
import { typeScale } from '../../theme/type';
import { usePalette } from '../../theme/usePalette';
import { useTouch } from './useTouch';

/** What the pad shows. */
export interface PadFace {
  title: string;
  hint: string;
  /** Acts when it is touched, not when it is let go: for marks, whose moment counts. */
  atTouch: boolean;
  height: number;
  disabled: boolean;
}

/** The same in the colours of a theme. */
interface Written extends PadFace {
  palette: Palette;
}

interface PadProps {
  /** What it shows as of now. */
  face: () => PadFace;
  /** Calls whenever that has changed, drawn or not; gives back how to stop. */
  follow: (changed: () => void) => () => void;
  onPress: () => void;
}

/** A style of the one scale, in the browser's own terms. */
const styleOf = (name: keyof typeof typeScale): CSSProperties => {
  const { fontFamily, fontSize, lineHeight, fontWeight } = typeScale[name];
  return { fontFamily, fontSize, lineHeight: `${lineHeight}px`, fontWeight };
};
const TITLE = styleOf('pad');
const HINT = styleOf('body');

/**
 * The big slab at the thumb. It is the browser's own button, and what it says is written into it by hand: the interface
 * library finds its way to it through the whole of the screen, and on a slow phone that is most of what a press takes.
 */
export function Pad({ face, follow, onPress }: PadProps) {
  const palette = usePalette();
  const button = useRef<HTMLButtonElement>(null);
  const shown = useRef<Written | null>(null);
  useLayoutEffect(() => {
    const show = () => {
      const now = { ...face(), palette };
      if (button.current) write(button.current, now, shown.current);
      shown.current = now;
    };
    // What is drawn may be older than what was shown since.
    show();
    return follow(show);
  }, [face, follow, palette]);
  useTouch(button, {
    waits: () => shown.current?.disabled === false,
    atTouch: () => shown.current?.atTouch === true,
    press: onPress,
  });
  return (
    <button
      ref={button}
      type="button"
      className="pad"
      data-testid="pad"
      style={{ padding: `0 ${space.gap}px`, gap: space.hair }}
    >
      <span style={TITLE} />
      <span style={HINT} />
    </button>
  );
}

/** Writes what has changed of a pad since it was last written. */
function write(pad: HTMLButtonElement, now: Written, last: Written | null): void {
  const { title, hint, disabled, height, palette } = now;
  const [first, second] = pad.children;
  if (first && title !== last?.title) first.textContent = title;
  if (second && hint !== last?.hint) second.textContent = hint;
  if (title !== last?.title || hint !== last.hint)
    pad.setAttribute('aria-label', `${title}. ${hint}`);
  if (height !== last?.height) pad.style.height = `${height}px`;
  if (disabled === last?.disabled && palette === last.palette) return;
  // It stays where the keyboard is while there is nothing to press for a moment.
  if (disabled) pad.setAttribute('aria-disabled', 'true');
  else pad.removeAttribute('aria-disabled');
  pad.style.color = disabled ? palette.quiet : palette.onAccent;
  pad.style.background = disabled ? palette.raised : palette.accent;
}
