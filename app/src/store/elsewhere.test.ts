/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { RunFact } from '@keen-bleed/contract';
import { roadTest } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { me } from '../test/aPhone';
import { madeUpUnit } from '../test/madeUpUnit';
import { addToRecord } from './addToRecord';
import { laneOf } from './kept';
import { keptLog } from './logs';
import { recordIn } from './recordIn';
import { fileOf, saveAsFile, takeOffDevice } from './saveAsFile';
import { startRun } from './startRun';

/* Records that are not open on the screen: another device's, one in the background, one that is taken off the device. */
Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });

let sent: { path: string; body: unknown }[] = [];
let answer: () => Promise<Response>;
const json = (status: number, body: object) =>
  Promise.resolve(
    new Response(JSON.stringify(body), {
      status,
      headers: { 'content-type': 'application/json', 'server-time': String(Date.now()) },
    }),
  );
beforeEach(() => {
  sent = [];
  answer = () => Promise.reject(new TypeError('network'));
  globalThis.fetch = ((path: string, init: RequestInit) => {
    sent.push({ path, body: JSON.parse(init.body as string) as unknown });
    return answer();
  }) as typeof fetch;
});

const note = (text: string) => ({ kind: 'note', stepId: 'prepare', text }) as const;
const aRun = () =>
  startRun(me, {
    unit: madeUpUnit('truck', { id: uuidv7() }),
    ...{ towed: [], ruleSet: roadTest, leftOut: ['drain'], rigId: null },
  });

describe('a note to a record that is not kept here', () => {
  const logId = uuidv7();
  const fact = (lane: string, seq: number) => ({ lane, seq }) as RunFact;

  it('goes in the next place of this device’s own lane, and is right once the server says it holds it', async () => {
    answer = () => json(200, { logId, held: 5, lanes: {} });
    const lane = await laneOf(me);
    const known = [fact(lane, 2), fact('another', 9), fact(lane, 4), fact(lane, 3)];
    expect(await addToRecord(logId, me, known, note('late'))).toBeNull();
    expect(sent).toMatchObject([
      {
        path: `/api/v1/logs/${logId}/facts`,
        body: { facts: [{ kind: 'note', text: 'late', lane, seq: 5 }] },
      },
    ]);
    expect(await addToRecord(logId, me, [], note('first'))).toBeNull();
    expect(sent[1]?.body).toMatchObject({ facts: [{ seq: 1 }] });
  });

  it('is told what was wrong with it', async () => {
    answer = () => json(200, { ok: true });
    expect(await addToRecord(logId, me, [], note('x'))).toContain('is in the way');
    answer = () => json(409, { code: 'log-closed', message: 'It is closed.' });
    expect(await addToRecord(logId, me, [], note('x'))).toBe('It is closed.');
  });
});

describe('a fact of a log in the background', () => {
  it('is kept like any other, and its problem is told', async () => {
    const id = await aRun();
    expect(await recordIn(me, id, note('seen'))).toBeNull();
    const kept = await keptLog(id);
    expect(kept?.rows.map(({ fact, sent: is }) => [(fact as { text?: string }).text, is])).toEqual([
      ['seen', 0],
    ]);
    expect(await recordIn(me, id, { kind: 'note', stepId: 'no such step', text: 'x' })).toMatch(
      /\w/,
    );
    expect((await keptLog(id))?.rows).toHaveLength(1);
    expect(await recordIn(me, uuidv7(), note('x'))).toBe('This record is not on this device.');
  });
});

describe('a record that waits, as a file', () => {
  it('holds all of it in order, with what was sent', async () => {
    const id = await aRun();
    for (const text of ['a', 'b']) await recordIn(me, id, note(text));
    const file = await fileOf(id);
    expect(file?.name).toBe(`run-${id}.json`);
    const body = JSON.parse(file?.text ?? '') as {
      facts: { seq: number; text: string; sent: boolean }[];
    };
    expect(body).toMatchObject({ header: { id }, refused: null, dropped: [] });
    expect(body.facts.map(({ seq, text, sent: is }) => [seq, text, is])).toEqual([
      [1, 'a', false],
      [2, 'b', false],
    ]);
    expect(file?.text.endsWith('}\n')).toBe(true);
    expect(await fileOf(uuidv7())).toBeNull();
  });

  it('is saved before it is taken off the device, and takes nothing else with it', async () => {
    const [id, other] = [await aRun(), await aRun()];
    for (const each of [id, other]) await recordIn(me, each, note('a'));
    const saved: string[] = [];
    const link = {
      href: '',
      download: '',
      click: () => saved.push(`${link.download} ${link.href}`),
    };
    Object.assign(globalThis, { document: { createElement: () => link } });
    const gone: string[] = [];
    Object.assign(URL, {
      createObjectURL: () => 'blob:x',
      revokeObjectURL: (url: string) => gone.push(url),
    });
    await takeOffDevice(id);
    expect(saved).toEqual([`run-${id}.json blob:x`]);
    expect(gone).toEqual(['blob:x']);
    expect(await keptLog(id)).toBeNull();
    expect((await keptLog(other))?.rows).toHaveLength(1);
    await saveAsFile(uuidv7());
    expect(saved).toHaveLength(1);
    delete (globalThis as { document?: unknown }).document;
  });
});
