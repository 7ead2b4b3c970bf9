import type { PlanSymbol } from '@keen-bleed/core/drawing';
import { useCallback, useRef, type RefObject } from 'react';
import type { LayoutChangeEvent, ScrollView } from 'react-native';

/** What stands over a part that was brought up, px. */
const ABOVE = 90;

/** Brings the part that was tapped up to where the panel under the drawing does not cover it. */
export function useBringUp(): {
  scroller: RefObject<ScrollView | null>;
  onDrawing: (event: LayoutChangeEvent) => void;
  bringUp: (symbol: PlanSymbol, scale: number) => void;
} {
  const scroller = useRef<ScrollView>(null);
  const top = useRef(0);
  const bringUp = useCallback(
    ({ box }: PlanSymbol, scale: number) =>
      // Once the panel stands and there is room to scroll.
      void requestAnimationFrame(() =>
        scroller.current?.scrollTo({
          y: Math.max(0, top.current + box.y * scale - ABOVE),
          animated: false,
        }),
      ),
    [],
  );
  return {
    scroller,
    onDrawing: ({ nativeEvent }) => (top.current = nativeEvent.layout.y),
    bringUp,
  };
}
