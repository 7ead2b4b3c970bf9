import { useRef, type CSSProperties } from 'react';
import { space } from '../../theme/space';
import { typeScale } from '../../theme/type';
import { usePalette } from '../../theme/usePalette';
import { useTouch } from './useTouch';

interface PadProps {
  title: string;
  hint: string;
  onPress: () => void;
  /** Acts when it is touched, not when it is let go: for marks, whose moment counts. */
  atTouch: boolean;
  height: number;
  disabled?: boolean;
}

/** A style of the one scale, in the browser's own terms. */
const faceOf = (name: keyof typeof typeScale): CSSProperties => {
  const { fontFamily, fontSize, lineHeight, fontWeight } = typeScale[name];
  return { fontFamily, fontSize, lineHeight: `${lineHeight}px`, fontWeight };
};
const TITLE = faceOf('pad');
const HINT = faceOf('body');

/**
 * The big slab at the thumb. It is the browser's own button: the library's would be drawn twice over before the touch
 * is shown, and on a slow phone that is most of what a press takes.
 */
export function Pad({ title, hint, onPress, atTouch, height, disabled = false }: PadProps) {
  const palette = usePalette();
  const button = useRef<HTMLButtonElement>(null);
  const touch = useTouch(button, atTouch);
  return (
    <button
      ref={button}
      type="button"
      className="pad"
      aria-label={`${title}. ${hint}`}
      // It stays where the keyboard is while there is nothing to press for a moment.
      aria-disabled={disabled || undefined}
      data-testid="pad"
      onPointerDown={(event) => {
        // The mouse events that follow say the same again, and each costs a slow phone a few milliseconds. It takes the
        // focus by itself instead: the next key must not press what was pressed before.
        event.preventDefault();
        if (document.activeElement !== event.currentTarget)
          event.currentTarget.focus({ preventScroll: true });
        if (disabled || event.button !== 0) return;
        touch.begin();
        if (atTouch) onPress();
      }}
      onClick={(event) => {
        // A keyboard or a screen reader clicks without touching.
        if (!touch.isSaid(event.timeStamp) && !disabled) onPress();
      }}
      onKeyDown={(event) => {
        // A key that is held down marks once.
        if (event.repeat && (event.key === 'Enter' || event.key === ' ')) event.preventDefault();
      }}
      style={{
        height,
        padding: `0 ${space.gap}px`,
        gap: space.hair,
        color: disabled ? palette.quiet : palette.onAccent,
        background: disabled ? palette.raised : palette.accent,
      }}
    >
      <span style={TITLE}>{title}</span>
      <span style={HINT}>{hint}</span>
    </button>
  );
}
