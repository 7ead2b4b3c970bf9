/* Frames a second while a marker is dragged on a board of 500 jobs, beside the same page left alone. */

const ROWS = 500;
const SECONDS = 4;

/** Frames a second, and the longest gap between two, ms, until a promise is done. */
const framesDuring = async (page, does) => {
  await page.evaluate(() => {
    globalThis.frames = [];
    globalThis.isCounting = true;
    const next = (atMs) => {
      globalThis.frames.push(atMs);
      if (globalThis.isCounting) globalThis.requestAnimationFrame(next);
    };
    globalThis.requestAnimationFrame(next);
  });
  await does();
  return page.evaluate(() => {
    globalThis.isCounting = false;
    const { frames } = globalThis;
    const gaps = frames.slice(1).map((atMs, n) => atMs - frames[n]);
    const lastedMs = frames.at(-1) - frames[0];
    return { perSecond: (gaps.length / lastedMs) * 1000, longestMs: Math.max(...gaps) };
  });
};

/** A wide board on which every job is shown, and one marker that goes to and fro. */
export async function dragsJobs(launchBrowser, url) {
  const browser = await launchBrowser();
  try {
    const page = await browser.newPage({
      viewport: { width: 1280, height: 800 },
      serviceWorkers: 'block',
    });
    await page.request.post(`${url}/api/sign-in`, {
      data: { signInName: 'maren', password: 'grit-before-snow' },
    });
    await page.route('**/api/jobs', async (route) => {
      const open = (await (await route.fetch()).json()).filter((row) => row.closedAtMs === null);
      const rows = Array.from({ length: ROWS }, (_, n) => ({
        ...open[n % open.length],
        id: `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`,
      }));
      await route.fulfill({ json: rows });
    });
    await page.goto(`${url}/jobs`);
    await page.getByRole('list', { name: 'Open jobs' }).waitFor();
    for (;;) {
      const more = page.getByRole('button', { name: /^\d+ more$/ }).first();
      if (!(await more.isVisible())) break;
      await more.click();
    }
    const shown = await page.getByRole('slider').count();
    const marker = page.getByRole('slider').nth(3);
    await marker.scrollIntoViewIfNeeded();
    const box = await marker.boundingBox();
    const x = box.x + box.width / 2;
    const y = box.y + box.height / 2;
    const still = await framesDuring(page, () => page.waitForTimeout(SECONDS * 1000));
    await page.mouse.move(x, y);
    await page.mouse.down();
    const dragged = await framesDuring(page, async () => {
      const untilMs = Date.now() + SECONDS * 1000;
      for (let n = 0; Date.now() < untilMs; n += 1) {
        await page.mouse.move(x + 200 * Math.sin(n / 12), y);
      }
    });
    await page.keyboard.press('Escape');
    return { shown, still, dragged };
  } finally {
    await browser.close();
  }
}
