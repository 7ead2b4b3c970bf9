/* What a leak hunt on the rig with most joints costs a phone at four times slow-down: scrolled through, and marked joint by joint. */

const SCROLL_S = 4;
const MARKS = 12;
/** A frame this long after the one before it is late, ms: sixty a second and a little. */
const LATE_MS = 1000 / 60 + 5;

/** Frames while something goes on, and the longest gap between two of them. */
const framesWhile = (page, does) =>
  page.evaluate(
    ([seconds, source, lateMs]) =>
      new Promise((done) => {
        const each = new Function('share', source);
        const times = [];
        const startMs = performance.now();
        const next = (nowMs) => {
          times.push(nowMs);
          const share = (performance.now() - startMs) / (seconds * 1000);
          each(share);
          if (share < 1) globalThis.requestAnimationFrame(next);
          else {
            const gaps = times.slice(1).map((at, n) => at - times[n]);
            done({
              perSecond: (1000 * gaps.length) / (times.at(-1) - times[0]),
              longestMs: Math.max(...gaps),
              late: gaps.filter((gap) => gap > lateMs).length,
              frames: gaps.length,
            });
          }
        };
        globalThis.requestAnimationFrame(next);
      }),
    [SCROLL_S, does, LATE_MS],
  );

/** Scrolls a hunt of the demo's double through and back, and marks joints of it. */
export async function huntWalks(launchBrowser, url) {
  const browser = await launchBrowser();
  try {
    const page = await browser.newPage({
      serviceWorkers: 'block',
      viewport: { width: 390, height: 844 },
    });
    await page.request.post(`${url}/api/sign-in`, {
      data: { signInName: 'idris', password: 'grit-before-snow' },
    });
    const units = await (await page.request.get(`${url}/api/units`)).json();
    const front = units.find(({ number }) => number === '11');
    await page.goto(`${url}/unit/${front.id}/hunt`);
    await page.getByRole('status', { name: 'How the hunt stands' }).waitFor();
    await page.getByRole('radio', { name: 'Released', exact: true }).click();
    const rows = page.getByRole('list', { name: 'Joints, Released' }).getByRole('listitem');
    await rows.first().waitFor();
    const joints = await rows.count();
    const cdp = await page.context().newCDPSession(page);
    await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    const scroller = `
      const list = document.querySelector('[aria-label^="Joints"]');
      let at = list;
      while (at && !(at.scrollHeight > at.clientHeight + 50 && getComputedStyle(at).overflowY !== 'visible')) at = at.parentElement;
      if (at) at.scrollTop = (share < 0.5 ? share * 2 : 2 - share * 2) * (at.scrollHeight - at.clientHeight);`;
    const scrolled = await framesWhile(page, scroller);
    const still = await framesWhile(page, '');
    const marks = [];
    for (let n = 0; n < Math.min(MARKS, joints); n += 1) {
      const dry = rows.nth(n).getByRole('radio', { name: 'dry' });
      // What it was called before says nothing of how long a new word takes.
      const isDry = (await dry.getAttribute('aria-checked')) === 'true';
      const radio = isDry ? rows.nth(n).getByRole('radio', { name: 'film' }) : dry;
      await radio.scrollIntoViewIfNeeded();
      marks.push(
        await radio.evaluate(
          (element) =>
            new Promise((done) => {
              const fromMs = performance.now();
              element.click();
              const check = () => {
                if (element.getAttribute('aria-checked') === 'true')
                  globalThis.requestAnimationFrame(() => done(performance.now() - fromMs));
                else globalThis.requestAnimationFrame(check);
              };
              check();
            }),
        ),
      );
    }
    const yardstickMs = await page.evaluate(() => {
      const startMs = performance.now();
      let sum = 0;
      for (let n = 1; n < 2_000_000; n += 1) sum += Math.sqrt(n);
      return sum > 0 ? performance.now() - startMs : 0;
    });
    return { joints, scrolled, still, marks, yardstickMs };
  } finally {
    await browser.close();
  }
}
