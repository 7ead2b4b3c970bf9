import { pressMs, scriptUntil, TRACED } from './scriptUntil.mjs';

/** So many roots are drawn beside each measurement, as a measure of the machine. */
const ROOTS = 2_000_000;
const TAPS = 6;
const FACTS_A_LOG = 20;

/** Opens a run on a phone that keeps so many logs already, and presses the pad: what each press costs. */
export async function padTaps(launch, url, keptLogs, unit) {
  const browser = await launch();
  try {
    const page = await browser.newPage({
      viewport: { width: 390, height: 844 },
      serviceWorkers: 'block',
    });
    await page.request.post(`${url}/api/sign-in`, {
      data: { signInName: 'idris', password: 'grit-before-snow' },
    });
    // The pad keeps its touch to itself: whoever wants to know when it came has to listen before the application does.
    await page.addInitScript(() =>
      globalThis.addEventListener(
        'pointerdown',
        () => (globalThis.touchedAtMs = performance.now()),
        true,
      ),
    );
    await page.goto(url);
    await page.getByRole('heading', { name: 'Yard' }).waitFor();
    await page.waitForLoadState('networkidle');
    if (keptLogs > 0) await page.evaluate(keepLogs, [keptLogs, FACTS_A_LOG]);
    await page.getByRole('link', { name: unit }).click();
    await page.getByRole('button', { name: 'Start a run' }).click();
    await page.getByRole('button', { name: 'Start the run' }).click();
    const pad = page.getByTestId('pad');
    await pad.waitFor();
    const cdp = await page.context().newCDPSession(page);
    await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    await page.evaluate(() => {
      globalThis.long = [];
      new PerformanceObserver((list) =>
        globalThis.long.push(...list.getEntries().map((entry) => entry.duration)),
      ).observe({ type: 'longtask' });
    });
    const presses = [];
    const works = [];
    const felt = [];
    const kept = [];
    for (let tap = 0; tap < TAPS; tap += 1) {
      await makeReady(page, pad);
      const box = await pad.boundingBox();
      await page.waitForTimeout(700);
      await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
      // The pad's own look changes when the touch is felt; the mark is confirmed later, once it is kept. All is told in one
      // answer that is asked for before the touch: a question in between would be script of its own.
      const tapped = page.evaluate(() => {
        const target = document.querySelector('[data-testid="pad"]');
        let feltMs = 0;
        const watch = new MutationObserver(() => {
          watch.disconnect();
          feltMs = performance.now() - globalThis.touchedAtMs;
        });
        watch.observe(target, { attributes: true, attributeFilter: ['style', 'class'] });
        return new Promise((resolve) => {
          const changed = new MutationObserver(() => {
            changed.disconnect();
            performance.mark('pad changed');
            resolve({ feltMs, keptMs: performance.now() - globalThis.touchedAtMs });
          });
          changed.observe(target, { subtree: true, characterData: true, childList: true });
        });
      });
      await browser.startTracing(page, { categories: TRACED });
      await page.mouse.down();
      await page.mouse.up();
      const { feltMs, keptMs } = await tapped;
      felt.push(feltMs);
      kept.push(keptMs);
      const trace = await browser.stopTracing();
      presses.push(pressMs(trace));
      works.push(scriptUntil(trace, 'pad changed'));
    }
    const long = await page.evaluate(() => globalThis.long);
    const yardstickMs = await page.evaluate((roots) => {
      const startedMs = performance.now();
      let sum = 0;
      for (let n = 0; n < roots; n += 1) sum += Math.sqrt(n);
      return sum > 0 ? performance.now() - startedMs : NaN;
    }, ROOTS);
    return { keptLogs, presses, long, works, felt, kept, yardstickMs };
  } finally {
    await browser.close();
  }
}

/** Answers the lines of a step that come before its press, each as usual, and sets the needle where it is suggested. */
async function makeReady(page, pad) {
  for (let text = await pad.textContent(); /to answer|suggested/.test(text);) {
    if (text.includes('to answer')) await page.keyboard.press('g');
    else {
      await page.keyboard.press('ArrowUp');
      await page.keyboard.press('ArrowDown');
    }
    await page.waitForFunction(
      (old) => document.querySelector('[data-testid="pad"]').textContent !== old,
      text,
    );
    text = await pad.textContent();
  }
}

/** In the page: fills the device's store with runs the server has confirmed, as two years of a busy phone leave them. */
async function keepLogs([logs, factsEach]) {
  const db = await new Promise((resolve, reject) => {
    const asked = globalThis.indexedDB.open('keen-bleed');
    asked.onsuccess = () => resolve(asked.result);
    asked.onerror = () => reject(asked.error);
  });
  const uuid = () => crypto.randomUUID();
  for (let from = 0; from < logs; from += 100) {
    const tx = db.transaction(['logs', 'facts'], 'readwrite');
    for (let n = from; n < Math.min(logs, from + 100); n += 1) {
      const [id, lane, unitId] = [uuid(), uuid(), uuid()];
      tx.objectStore('logs').put({
        ...{ id, kind: 'run', shopId: uuid(), personId: uuid(), unitId, opened: 1, closed: 1 },
        header: { id, kind: 'run', v: 1, subject: { unitId, rigId: null, partId: null } },
        ...{ refused: null, confirmedAtMs: Date.now(), writers: {}, verdict: 'pass' },
      });
      for (let seq = 1; seq <= factsEach; seq += 1) {
        const fact = { id: uuid(), lane, seq, atMs: n * 1000 + seq, kind: 'note', text: 'kept' };
        tx.objectStore('facts').put({
          id: fact.id,
          logId: id,
          lane,
          seq,
          fact,
          sent: 1,
          epoch: 'x',
        });
      }
    }
    await new Promise((resolve, reject) => {
      tx.oncomplete = resolve;
      tx.onerror = () => reject(tx.error);
    });
  }
  db.close();
}
