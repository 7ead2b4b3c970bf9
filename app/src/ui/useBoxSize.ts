import { startTransition, useCallback, useState } from 'react';
import type { LayoutChangeEvent } from 'react-native';

/** The size a box was given, px, and what to hand it as `onLayout`. */
export function useBoxSize(): [
  { width: number; height: number },
  (event: LayoutChangeEvent) => void,
] {
  const [size, setSize] = useState({ width: 0, height: 0 });
  const onLayout = useCallback((event: LayoutChangeEvent) => {
    const { width, height } = event.nativeEvent.layout;
    // What fills a box may be large, a ladder or a drawing: a press goes before it.
    startTransition(() =>
      setSize((before) =>
        before.width === width && before.height === height ? before : { width, height },
      ),
    );
  }, []);
  return [size, onLayout];
}
