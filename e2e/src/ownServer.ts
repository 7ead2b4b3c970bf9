import { test as base, expect, type Page } from '@playwright/test';
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';

const root = join(import.meta.dirname, '../..');

/** A server of its own for each worker, over a database of its own. */
export interface OwnServer {
  url: string;
  /** What it printed since it was started. */
  said: () => string;
  /** Shuts the database as an operator would, or opens it again. */
  shutDatabase: (shut: boolean) => void;
  /** Runs a statement and gives back the rows as text. */
  query: (sql: string) => string;
}

function psql(url: string, sql: string): string {
  return execFileSync('psql', [url, '-v', 'ON_ERROR_STOP=1', '-Atqc', sql], {
    encoding: 'utf8',
  }).trim();
}

/** Starts a server as an operator would; gives its port, what it said, and how to stop it, in good order or not. */
export async function startServer(env: Record<string, string>): Promise<{
  port: number;
  said: () => string;
  stop: () => Promise<void>;
  kill: () => Promise<void>;
}> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    cwd: root,
    env: { ...process.env, PORT: '0', SIGN_IN_TRIES: '1000', LOG_LEVEL: 'silent', ...env },
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  let said = '';
  child.stdout?.setEncoding('utf8').on('data', (words: string) => (said += words));
  const port = await portFrom(child);
  const end = async (signal: 'SIGTERM' | 'SIGKILL') => {
    if (child.exitCode !== null || child.signalCode !== null) return;
    const ended = once(child, 'exit');
    child.kill(signal);
    await ended;
  };
  return { port, said: () => said, stop: () => end('SIGTERM'), kill: () => end('SIGKILL') };
}

/** An empty database of its own beside the one tests are given; gives its address. */
export function emptyDatabase(name: string): string {
  const admin = process.env.TEST_DATABASE_URL;
  if (!admin) throw new Error('TEST_DATABASE_URL is not set: run these through `npm test`');
  psql(admin, `create database ${name}`);
  return admin.replace(/\/[^/]*$/, `/${name}`);
}

/** A message a server sends once it listens. */
function portFrom(child: ChildProcess): Promise<number> {
  return new Promise((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    child.once('message', (message: { listening: number }) => resolve(message.listening));
  });
}

interface Options {
  /** Whether the database starts with the demo world. */
  withDemo: boolean;
}

export const test = base.extend<object, { server: OwnServer } & Options>({
  withDemo: [true, { option: true, scope: 'worker' }],
  server: [
    async ({ withDemo }, use, info) => {
      const admin = process.env.TEST_DATABASE_URL;
      if (!admin) throw new Error('TEST_DATABASE_URL is not set: run these through `npm test`');
      const name = `e2e_${process.pid}_${info.workerIndex}_${withDemo ? 'demo' : 'empty'}`;
      const url = emptyDatabase(name);
      const { port, said, stop } = await startServer({
        DATABASE_URL: url,
        SESSION_SECRET: 'browser tests only',
        DEMO: withDemo ? '1' : '0',
      });
      await use({
        url: `http://127.0.0.1:${port}`,
        said,
        query: (sql) => psql(url, sql),
        shutDatabase: (shut) => {
          psql(admin, `alter database ${name} with allow_connections ${!shut}`);
          if (shut)
            psql(
              admin,
              `select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}'`,
            );
        },
      });
      await stop();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ server }, use) => {
    await use(server.url);
  },
});

export { expect };

/** Comes in with a session, past the form, and waits for the yard. */
export async function signIn(
  page: Page,
  name: 'maren' | 'idris' | 'paula' | 'joss',
): Promise<void> {
  const answer = await page.request.post('/api/sign-in', {
    data: { signInName: name, password: 'grit-before-snow' },
  });
  expect(answer.status()).toBe(200);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
}

/** Fills the sign-in form and sends it. */
export async function fillSignIn(page: Page, name: string): Promise<void> {
  await page.getByLabel('Sign-in name').fill(name);
  await page.getByLabel('Password').fill('grit-before-snow');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}

/** Waits until the device has the application, and what a run needs, for the time without network. */
export async function allAtHand(page: Page): Promise<void> {
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await expect
    .poll(() =>
      page.evaluate(
        () =>
          new Promise<string[]>((resolve) => {
            const opening = indexedDB.open('keen-bleed');
            opening.onsuccess = () => {
              const get = opening.result.transaction('kept').objectStore('kept').get('last-read');
              get.onsuccess = () => {
                const kept = get.result as { entries: [string, unknown][] } | undefined;
                opening.result.close();
                resolve(kept?.entries.map(([key]) => key) ?? []);
              };
            };
          }),
      ),
    )
    .toEqual(
      expect.arrayContaining(
        ['yard', 'units', 'rigs', 'rule-sets'].map((each) => `/api/v1/${each}`),
      ),
    );
}

/** The big pad of a run. */
export const pad = (page: Page) => page.getByTestId('pad');

/** Presses the pad once it says `title`, at a moment the bounce guard takes for a press of its own. */
export async function press(page: Page, title: string | RegExp): Promise<void> {
  const text =
    typeof title === 'string' ? title.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : title.source;
  await expect(pad(page)).toContainText(new RegExp(`${text}|to answer`));
  await answerAll(page);
  await expect(pad(page)).toContainText(title);
  await setNeedle(page);
  await page.clock.fastForward(400);
  await pad(page).click();
}

/** Answers what a step asks as it should be, line by line, if it asks anything that is not answered yet. */
export async function answerAll(page: Page): Promise<void> {
  for (let text = await pad(page).innerText(); text.includes('to answer');) {
    const before = text;
    await page.keyboard.press('g');
    await expect(pad(page)).not.toHaveText(before);
    text = await pad(page).innerText();
  }
}

/** Sets the needle where it is suggested, as a thumb on the ladder would: a suggestion that is left is no reading. */
export async function setNeedle(page: Page): Promise<void> {
  if (!(await pad(page).innerText()).includes('suggested')) return;
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowDown');
  await expect(pad(page)).not.toContainText('suggested');
}

/** Waits as the pad asks before a hold. */
export async function letSettle(page: Page): Promise<void> {
  const clock = page.getByTestId('settling');
  await expect(clock).toBeVisible();
  const [minutes = 0, seconds = 0] = (await clock.innerText()).split(':').map(Number);
  await page.clock.fastForward((60 * minutes + seconds) * 1000);
  await expect(clock).toHaveText('0:00');
}

interface StartOptions {
  /** Run it alone, though it is coupled. */
  alone?: boolean;
  /** Title of the rule set, where it is not the one that is proposed. */
  ruleSet?: string;
  /** Drain, whatever the record of the day says. */
  drain?: boolean;
}

/** Opens a unit's sheet from the yard and starts a run on it. */
export async function startRun(
  page: Page,
  unit: string,
  { alone = false, ruleSet, drain = false }: StartOptions = {},
): Promise<void> {
  const units = page.getByRole('list', { name: 'Units' });
  await units.getByRole('link', { name: new RegExp(`^${unit}\\b`) }).click();
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByRole('heading', { name: 'Start a run' })).toBeVisible();
  if (alone) await page.getByRole('radio', { name: / alone$/ }).click();
  if (ruleSet) await page.getByRole('radio', { name: ruleSet }).click();
  if (drain) await page.getByRole('radio', { name: 'due now' }).click();
  await page.getByRole('button', { name: 'Start the run' }).click();
  await expect(page.getByRole('heading', { name: 'Make it safe' })).toBeVisible();
}

/** Presses the pad through the rest of a run, at what it proposes, and lets its holds end by themselves. */
export async function finishRun(page: Page): Promise<void> {
  await walkRun(page);
  await press(page, 'Keep this run');
}

/** What the pad and the step's title say, once both have been drawn for the same moment of the run. */
async function shown(page: Page): Promise<{ title: string; pad: string }> {
  await expect(pad(page)).not.toContainText('Hold over');
  await expect(page.locator('[role="main"][aria-busy="false"]')).toBeVisible();
  const title = await page.getByRole('heading', { level: 2 }).first().innerText();
  // Without its small line, which counts down while air settles.
  const [padTitle = ''] = (await pad(page).innerText()).split('\n');
  return { title, pad: padTitle };
}

/**
 * Waits until the server has all that is kept on a page's device. The sign alone may still say so of the moment before
 * the last entry; that entry has to be shown, and so kept, by then.
 */
export async function allSent(page: Page): Promise<void> {
  const waiting = () =>
    page.evaluate(
      () =>
        new Promise<number>((resolve, reject) => {
          const opened = indexedDB.open('keen-bleed');
          opened.onerror = () => reject(new Error('the device’s store does not open'));
          opened.onsuccess = () => {
            const store = opened.result;
            const asked = store.transaction('facts').objectStore('facts').index('by-sent').count(0);
            asked.onerror = () => reject(new Error('the device’s store does not answer'));
            asked.onsuccess = () => {
              store.close();
              resolve(asked.result);
            };
          };
        }),
    );
  await expect.poll(waiting).toBe(0);
  await expect(page.getByText('all sent')).toBeVisible();
}

/** Seconds the running hold still has, as the clock on the screen has it. */
export async function secondsLeft(page: Page): Promise<number> {
  const clock = page.getByTestId('clock');
  await expect(clock).toBeVisible();
  // A hold taken up again stands at nought until its longer time is kept.
  await expect(clock).not.toHaveText('0:00');
  const [minutes = 0, seconds = 0] = (await clock.innerText()).split(':').map(Number);
  return 60 * minutes + seconds;
}

/**
 * Lets a running hold come to its end. A jump by its whole length would land late by what the steps before it took,
 * and a hold found over late asks for a reading.
 */
export async function letHoldEnd(page: Page): Promise<void> {
  await page.clock.fastForward((await secondsLeft(page)) * 1000);
}

/** Walks a run from wherever it stands to “all steps done”; gives the titles of the steps it went through. */
export async function walkRun(page: Page): Promise<string[]> {
  const steps: string[] = [];
  for (let guard = 0; guard < 60; guard += 1) {
    const before = await shown(page);
    let last = before;
    if (steps.at(-1) !== before.title) steps.push(before.title);
    if (before.title === 'All steps done') return steps;
    if (before.pad.startsWith('Needle on')) {
      await letHoldEnd(page);
    } else {
      if (before.pad.startsWith('Settled at')) await letSettle(page);
      await answerAll(page);
      await setNeedle(page);
      // Untouched, a sound governor waits for minutes.
      await page.clock.fastForward(before.pad.startsWith('Climbs again') ? 240_000 : 20_000);
      last = await shown(page);
      await pad(page).click();
    }
    await expect.poll(() => shown(page), { intervals: [20, 40, 80] }).not.toEqual(last);
  }
  throw new Error(`the run does not end: ${steps.join(', ')}`);
}

/** Moves the proposed reading by presses of the nudge keys. */
export async function nudge(page: Page, direction: 'up' | 'down', times: number): Promise<void> {
  const key = page.getByRole('button', { name: new RegExp(`Move the reading ${direction}`) });
  for (let n = 0; n < times; n += 1) await key.click();
}

/** Walks a run of a psi truck to the start of its hold: 85 to 100 in `buildUpS`, out at 126, in at 106. */
export async function runToHold(page: Page, buildUpS = 30): Promise<void> {
  await press(page, 'All done, ready');
  await press(page, 'Needle at 85 psi');
  await expect(pad(page)).toContainText('Needle at 100 psi');
  await page.clock.fastForward(buildUpS * 1000 - 400);
  await press(page, 'Needle at 100 psi');
  await expect(pad(page)).toContainText('Stopped at');
  await nudge(page, 'up', 1);
  await press(page, 'Stopped at 126 psi');
  await expect(pad(page)).toContainText('Climbs from');
  await nudge(page, 'up', 6);
  await press(page, 'Climbs from 106 psi');
  await expect(pad(page)).not.toContainText('Climbs from');
  // A tractor alone is asked after its protection valve first.
  if ((await pad(page).innerText()).includes('to answer')) await press(page, 'Keep what was found');
  await expect(pad(page)).toContainText('Engine off, released');
  await nudge(page, 'down', 6);
  await press(page, 'Engine off, released, at 120 psi');
  await letSettle(page);
  await press(page, 'Settled at 120 psi: start');
  await expect(pad(page)).toContainText('Needle on');
}
