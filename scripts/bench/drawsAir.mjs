/* What a moving drawing costs the page's main thread, beside the same page with the drawing still and a fixed yardstick. */

const SECONDS = 6;

/** Milliseconds of the main thread for each frame: its scripts, its styles and its layout. */
async function perFrame(page, cdp) {
  const read = async () => {
    const { metrics } = await cdp.send('Performance.getMetrics');
    const of = (name) => metrics.find((metric) => metric.name === name)?.value ?? 0;
    return of('ScriptDuration') + of('RecalcStyleDuration') + of('LayoutDuration');
  };
  const before = await read();
  const frames = await page.evaluate(
    (seconds) =>
      new Promise((done) => {
        let count = 0;
        const end = performance.now() + seconds * 1000;
        const next = () => {
          count += 1;
          if (performance.now() < end) globalThis.requestAnimationFrame(next);
          else done(count);
        };
        globalThis.requestAnimationFrame(next);
      }),
    SECONDS,
  );
  return { ms: (((await read()) - before) * 1000) / frames, perSecond: frames / SECONDS };
}

/** A fixed piece of arithmetic, ms: what this machine is worth at this moment. */
const yardstick = (page) =>
  page.evaluate(() => {
    const startMs = performance.now();
    let sum = 0;
    for (let n = 1; n < 2_000_000; n += 1) sum += Math.sqrt(n);
    return sum > 0 ? performance.now() - startMs : 0;
  });

/** A tractor and trailer in the Bay while it builds up, at four times slow-down: the air seen in it, and not. */
export async function drawsAir(launchBrowser, url) {
  const browser = await launchBrowser();
  const found = [];
  try {
    for (const [title, viewport] of [
      ['phone', { width: 390, height: 844 }],
      ['wide', { width: 1280, height: 800 }],
    ]) {
      const page = await browser.newPage({ serviceWorkers: 'block', viewport });
      await page.request.post(`${url}/api/sign-in`, {
        data: { signInName: 'idris', password: 'grit-before-snow' },
      });
      await page.goto(`${url}/bay`);
      await page.getByLabel('Find a rig').fill('Tractor 09 + Low-loader 31');
      await page.getByRole('radio', { name: 'none', exact: true }).click();
      await page.getByRole('button', { name: 'Start' }).click();
      await page.getByRole('radio', { name: '2,100' }).click();
      const turn = page.getByRole('radio', { name: 'Around the rig' });
      if (await turn.isVisible()) await turn.click();
      await page
        .getByRole('button', { name: /Rear relay/ })
        .first()
        .waitFor();
      const cdp = await page.context().newCDPSession(page);
      await cdp.send('Performance.enable');
      await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 });
      const seen = await perFrame(page, cdp);
      await page.getByText('See the air in it').click();
      const still = await perFrame(page, cdp);
      found.push({ title, seen, still, yardstickMs: await yardstick(page) });
      await page.close();
    }
  } finally {
    await browser.close();
  }
  return found;
}
