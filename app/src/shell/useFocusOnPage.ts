import { useEffect, useRef } from 'react';

/** A page whose heading has not come after this is not waited for, ms. */
const LONGEST_MS = 8_000;

const HEADINGS = '[role="main"] h1, [role="main"] h2, [role="main"] [role="heading"]';

const isTyping = () => /^(INPUT|TEXTAREA|SELECT)$/.test(document.activeElement?.tagName ?? '');

/** Puts the focus on the page's heading, unless somebody types already. Says whether that is settled. */
function onHeading(): boolean {
  if (isTyping()) return true;
  const heading = document.querySelector<HTMLElement>(HEADINGS);
  if (!heading) return false;
  heading.tabIndex = -1;
  heading.style.outline = 'none';
  heading.focus({ preventScroll: true });
  return true;
}

/**
 * When another page comes, the focus goes to its heading: a screen reader says where one is, and Tab goes on from
 * there. The first page leaves it to the browser. A page that is on its way is waited for, until a key or a finger is
 * put to something.
 */
export function useFocusOnPage(path: string): void {
  const before = useRef(path);
  useEffect(() => {
    if (before.current === path) return undefined;
    before.current = path;
    let over = false;
    const watcher = new MutationObserver(() => {
      if (onHeading()) stop();
    });
    const timer = setTimeout(stop, LONGEST_MS);
    function stop() {
      if (over) return;
      over = true;
      watcher.disconnect();
      clearTimeout(timer);
      window.removeEventListener('keydown', stop, true);
      window.removeEventListener('pointerdown', stop, true);
    }
    window.addEventListener('keydown', stop, true);
    window.addEventListener('pointerdown', stop, true);
    if (onHeading()) stop();
    else watcher.observe(document.body, { childList: true, subtree: true });
    return stop;
  }, [path]);
}
