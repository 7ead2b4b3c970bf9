import { useRef } from 'react';
import { Pressable } from 'react-native';
import { space } from '../../theme/space';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';

interface PadProps {
  title: string;
  hint: string;
  onPress: () => void;
  /** Acts when it is touched, not when it is let go: for marks, whose moment counts. */
  atTouch: boolean;
  height: number;
  disabled?: boolean;
}

/** A release is followed by its press within this time, ms. */
const AFTER_RELEASE_MS = 80;

/** The big slab at the thumb. */
export function Pad({ title, hint, onPress, atTouch, height, disabled = false }: PadProps) {
  const palette = usePalette();
  const done = useRef(false);
  return (
    <Pressable
      role="button"
      aria-label={`${title}. ${hint}`}
      testID="pad"
      disabled={disabled}
      // The library waits 50 ms for a scroll to begin; nothing scrolls here, and the moment counts.
      {...({ delayPressIn: 0 } as object)}
      onPressIn={() => {
        done.current = atTouch;
        if (atTouch) onPress();
      }}
      // The pad may change its size or place under the finger; a release that never comes must not eat the next press.
      onPressOut={() => {
        setTimeout(() => {
          done.current = false;
        }, AFTER_RELEASE_MS);
      }}
      onPress={() => {
        // A keyboard or a screen reader presses without touching.
        if (!done.current) onPress();
        done.current = false;
      }}
      style={({ pressed }) => [
        {
          height,
          backgroundColor: disabled ? palette.raised : palette.accent,
          alignItems: 'center',
          justifyContent: 'center',
          paddingHorizontal: space.gap,
          gap: space.hair,
          // Plain to see from the corner of an eye: the touch was felt.
          opacity: pressed ? 0.6 : 1,
        },
        { userSelect: 'none', touchAction: 'manipulation' } as object,
      ]}
    >
      <Txt as="pad" tone={disabled ? 'quiet' : 'onAccent'} style={{ textAlign: 'center' }}>
        {title}
      </Txt>
      <Txt tone={disabled ? 'quiet' : 'onAccent'} style={{ textAlign: 'center' }}>
        {hint}
      </Txt>
    </Pressable>
  );
}
