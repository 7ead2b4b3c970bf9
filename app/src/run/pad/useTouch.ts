import { useLayoutEffect, useRef, type RefObject } from 'react';

/** A release is followed by its click within this time, ms. */
const AFTER_RELEASE_MS = 80;
/** How the page's own styles know that it is touched. */
const FELT = 'felt';

/** What a browser says of a touch besides, and nobody needs of the pad. */
const UNUSED = ['touchstart', 'touchmove', 'touchend', 'touchcancel', 'mousedown', 'mouseup'];

/** What a touch of the pad comes to, asked at the moment of the touch. */
export interface Touched {
  /** Whether there is anything to press. */
  waits: () => boolean;
  /** Whether it acts when it is touched, not when it is let go. */
  atTouch: () => boolean;
  press: () => void;
}

/**
 * Hears what is done to the pad: a finger, a key, a screen reader. It listens at the top of the page and keeps what is
 * the pad's from everybody below: the interface libraries each look at every touch on its way down and up again, and on
 * a slow phone that is half of what a press takes.
 */
export function useTouch(button: RefObject<HTMLButtonElement | null>, touched: Touched): void {
  const latest = useRef(touched);
  useLayoutEffect(() => {
    latest.current = touched;
  });
  useLayoutEffect(() => {
    let held = false;
    let hasActed = false;
    let letGoAtMs = 0;
    /** The pad, where something is done to it; from then on nobody else hears of it. */
    const ofPad = (event: Event) => {
      const pad = button.current;
      if (!pad || !(event.target instanceof Node) || !pad.contains(event.target)) return null;
      event.stopImmediatePropagation();
      return pad;
    };
    const touch = (event: PointerEvent) => {
      const pad = ofPad(event);
      if (!pad) return;
      // The mouse events that follow say the same again, and each costs a slow phone a few milliseconds. It takes the
      // focus by itself instead: the next key must not press what was pressed before.
      event.preventDefault();
      if (document.activeElement !== pad) pad.focus({ preventScroll: true });
      const { waits, atTouch, press } = latest.current;
      if (!waits() || event.button !== 0) return;
      held = true;
      hasActed = atTouch();
      pad.classList.add(FELT);
      if (hasActed) press();
    };
    const letGo = (event: Event) => {
      if (!held) return;
      held = false;
      letGoAtMs = event.timeStamp;
      button.current?.classList.remove(FELT);
    };
    // The release is heard wherever the finger has gone. Where the pad waits for it, sliding off is to think better of it.
    const release = (event: Event) => {
      ofPad(event);
      letGo(event);
    };
    const slideOff = (event: Event) => {
      if (!hasActed) letGo(event);
    };
    const click = (event: MouseEvent) => {
      if (!ofPad(event)) return;
      // A keyboard or a screen reader clicks without touching. The pad may change its size or place under the finger: a
      // click that never comes must not eat a later press.
      const isOfTouch = held || event.timeStamp - letGoAtMs <= AFTER_RELEASE_MS;
      const isSaid = hasActed && isOfTouch;
      hasActed = false;
      if (!isSaid && latest.current.waits()) latest.current.press();
    };
    const key = (event: KeyboardEvent) => {
      const isPress = event.key === 'Enter' || event.key === ' ';
      // A key that is held down marks once.
      if (event.repeat && isPress && event.target === button.current) event.preventDefault();
    };
    const until = new AbortController();
    const { signal } = until;
    button.current?.addEventListener('pointerleave', slideOff, { signal });
    const hears = { capture: true, signal };
    addEventListener('pointerdown', touch, hears);
    addEventListener('pointerup', release, hears);
    addEventListener('pointercancel', release, hears);
    addEventListener('click', click, hears);
    addEventListener('keydown', key, hears);
    for (const type of UNUSED) addEventListener(type, ofPad, { ...hears, passive: true });
    return () => until.abort();
  }, [button]);
}
