import { useRef, type CSSProperties } from 'react';
import { space } from '../../theme/space';
import { typeScale } from '../../theme/type';
import { usePalette } from '../../theme/usePalette';

interface PadProps {
  title: string;
  hint: string;
  onPress: () => void;
  /** Acts when it is touched, not when it is let go: for marks, whose moment counts. */
  atTouch: boolean;
  height: number;
  disabled?: boolean;
}

/** A release is followed by its click within this time, ms. */
const AFTER_RELEASE_MS = 80;
/** How the page's own styles know that it is touched. */
const FELT = 'felt';

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
  const done = useRef(false);
  const hold = (pad: HTMLElement) => {
    pad.classList.add(FELT);
    const held = new AbortController();
    const { signal } = held;
    const letGo = () => {
      held.abort();
      pad.classList.remove(FELT);
      // The pad may change its size or place under the finger; a click that never comes must not eat the next press.
      setTimeout(() => {
        done.current = false;
      }, AFTER_RELEASE_MS);
    };
    // The release is heard wherever the finger has gone. Where the pad waits for it, sliding off is to think better of it.
    for (const end of ['pointerup', 'pointercancel']) addEventListener(end, letGo, { signal });
    if (!atTouch) pad.addEventListener('pointerleave', letGo, { signal });
  };
  return (
    <button
      type="button"
      className="pad"
      aria-label={`${title}. ${hint}`}
      // It stays where the keyboard is while there is nothing to press for a moment.
      aria-disabled={disabled || undefined}
      data-testid="pad"
      onPointerDown={(event) => {
        if (disabled || event.button !== 0) return;
        hold(event.currentTarget);
        done.current = atTouch;
        if (atTouch) onPress();
      }}
      onClick={() => {
        // A keyboard or a screen reader clicks without touching.
        if (!disabled && !done.current) onPress();
        done.current = false;
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
