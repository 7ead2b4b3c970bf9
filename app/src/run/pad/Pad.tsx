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
  const shown = useRef<PadFace | null>(null);
  useLayoutEffect(() => {
    const show = () => {
      shown.current = face();
      if (button.current) write(button.current, shown.current, palette);
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

/** Writes what has changed of it. */
function write(
  pad: HTMLButtonElement,
  { title, hint, disabled, height }: PadFace,
  palette: Palette,
): void {
  const [first, second] = pad.children;
  const label = `${title}. ${hint}`;
  if (first && first.textContent !== title) first.textContent = title;
  if (second && second.textContent !== hint) second.textContent = hint;
  if (pad.getAttribute('aria-label') !== label) pad.setAttribute('aria-label', label);
  // It stays where the keyboard is while there is nothing to press for a moment.
  if (disabled) pad.setAttribute('aria-disabled', 'true');
  else pad.removeAttribute('aria-disabled');
  pad.style.height = `${height}px`;
  pad.style.color = disabled ? palette.quiet : palette.onAccent;
  pad.style.background = disabled ? palette.raised : palette.accent;
}
