/** Longest wait for a newer version to take over, ms; then the page is loaded anew as it is. */
const TAKES_OVER_MS = 3_000;

/** Loads the page anew, with the newest version that is on the device. */
export async function reloadPage(): Promise<void> {
  const workers = 'serviceWorker' in navigator ? navigator.serviceWorker : null;
  const waiting = (await workers?.getRegistration().catch(() => undefined))?.waiting;
  if (workers && waiting) {
    await new Promise<void>((done) => {
      setTimeout(done, TAKES_OVER_MS);
      workers.addEventListener('controllerchange', () => done(), { once: true });
      waiting.postMessage({ type: 'SKIP_WAITING' });
    });
  }
  window.location.reload();
}
