import { useEffect } from 'react';

const LOCK = 'keen-bleed log open';

/** Says to every tab of this device that something is being recorded, for as long as the screen stands. */
export function useLogOpenHere(isOpen: boolean): void {
  useEffect(() => {
    if (!isOpen || !('locks' in navigator)) return undefined;
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((done) => {
      letGo = done;
    });
    void navigator.locks.request(LOCK, { mode: 'shared' }, () => held).catch(() => undefined);
    return letGo;
  }, [isOpen]);
}

/** Whether something is being recorded in any tab; a browser without locks cannot tell and says no. */
export async function isLogOpen(): Promise<boolean> {
  if (!('locks' in navigator)) return false;
  const { held = [] } = await navigator.locks.query();
  return held.some(({ name }) => name === LOCK);
}
