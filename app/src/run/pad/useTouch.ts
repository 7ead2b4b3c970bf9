import { useLayoutEffect, useRef, type RefObject } from 'react';

/** A release is followed by its click within this time, ms. */
const AFTER_RELEASE_MS = 80;
/** How the page's own styles know that it is touched. */
const FELT = 'felt';

/** A touch of the pad, from the finger's coming to the click that follows its release. */
interface Touch {
  begin: () => void;
  /** Whether a click only says once more what its touch has done already; asked once of each click. */
  isSaid: (clickAtMs: number) => boolean;
}

/**
 * Shows that the pad is touched, and tells a click that follows a touch from one without.
 *
 * @param acts whether the pad acts when it is touched, not when it is let go
 */
export function useTouch(button: RefObject<HTMLButtonElement | null>, acts: boolean): Touch {
  const held = useRef(false);
  const hasActed = useRef(false);
  const letGoAtMs = useRef(0);
  useLayoutEffect(() => {
    const pad = button.current;
    const letGo = (event: Event) => {
      if (!held.current) return;
      held.current = false;
      letGoAtMs.current = event.timeStamp;
      pad?.classList.remove(FELT);
    };
    const slideOff = (event: Event) => {
      if (!hasActed.current) letGo(event);
    };
    // The release is heard wherever the finger has gone. Where the pad waits for it, sliding off is to think better of it.
    pad?.addEventListener('pointerleave', slideOff);
    for (const end of ['pointerup', 'pointercancel']) addEventListener(end, letGo);
    return () => {
      pad?.removeEventListener('pointerleave', slideOff);
      for (const end of ['pointerup', 'pointercancel']) removeEventListener(end, letGo);
    };
  }, [button]);
  return {
    begin: () => {
      held.current = true;
      hasActed.current = acts;
      button.current?.classList.add(FELT);
    },
    isSaid: (clickAtMs) => {
      // The pad may change its size or place under the finger: a click that never comes must not eat a later press.
      const isOfTouch = held.current || clickAtMs - letGoAtMs.current <= AFTER_RELEASE_MS;
      const said = hasActed.current && isOfTouch;
      hasActed.current = false;
      return said;
    },
  };
}
