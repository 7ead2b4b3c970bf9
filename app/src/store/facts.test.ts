/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { RunFact, Unit } from '@keen-bleed/contract';
import { roadTest } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { me } from '../test/aPhone';
import { madeUpUnit } from '../test/madeUpUnit';
import { database } from './database';
import { laneOf } from './kept';
import {
  changeLog,
  correctFact,
  countUnsent,
  droppedFacts,
  dropFact,
  folded,
  keptLog,
  moveToLane,
  refusedLogs,
  setHeld,
  setRefused,
  unsentFacts,
  waitingLogs,
} from './logs';
import { recordFact } from './recordFact';
import { startRun } from './startRun';

Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });
globalThis.fetch = () => Promise.reject(new TypeError('network'));

let n = 0;
/** A run with notes of these words, and its lane. */
async function aRunOf(...words: string[]) {
  const unit: Unit = madeUpUnit('truck', { id: uuidv7(), number: String((n += 1)) });
  const id = await startRun(me, {
    ...{ unit, towed: [], rigId: null, ruleSet: roadTest, leftOut: ['drain'] },
  });
  const lane = await laneOf(me);
  const add = async (fact: Parameters<typeof recordFact>[1]) => {
    const done = await recordFact({ log: folded((await keptLog(id))!), lane }, fact, Date.now());
    if ('problem' in done) throw new Error(done.problem);
  };
  for (const text of words) await add({ kind: 'note', stepId: 'prepare', text });
  return { id, lane, add };
}

const rowsOf = async (id: string) => (await keptLog(id))!.rows.sort((a, b) => a.seq - b.seq);
const standing = async (id: string) =>
  (await rowsOf(id)).map(({ seq, sent, fact }) => [
    seq,
    (fact as RunFact & { text?: string }).text ?? fact.kind,
    sent,
  ]);
const factIdOf = async (id: string, text: string) =>
  (await rowsOf(id)).find(({ fact }) => 'text' in fact && fact.text === text)!.id;

describe('what the server says it holds', () => {
  it('makes sent what is up to its last place of a lane, and unsent what is beyond', async () => {
    const { id, lane } = await aRunOf('a', 'b', 'c');
    expect(await setHeld(id, [lane], { [lane]: 2 })).toBe(true);
    expect(await standing(id)).toEqual([
      [1, 'a', 1],
      [2, 'b', 1],
      [3, 'c', 0],
    ]);
    // Told the same again nothing changes; a restored server may hold less.
    expect(await setHeld(id, [lane], { [lane]: 2 })).toBe(false);
    expect(await setHeld(id, [lane], {})).toBe(true);
    expect((await standing(id)).map(([, , sent]) => sent)).toEqual([0, 0, 0]);
  });

  it('says nothing of other lanes', async () => {
    const { id } = await aRunOf('a');
    const other = uuidv7();
    expect(await setHeld(id, [other], { [other]: 5 })).toBe(false);
    expect((await standing(id))[0]?.[2]).toBe(0);
  });
});

describe('a fact that the server will not have', () => {
  it('is dropped with what stands behind it moved up, and is kept apart with why', async () => {
    const { id, lane } = await aRunOf('a', 'b', 'c');
    await setHeld(id, [lane], { [lane]: 1 });
    await dropFact(await factIdOf(id, 'b'), 'half a character');
    expect(await standing(id)).toEqual([
      [1, 'a', 1],
      [2, 'c', 0],
    ]);
    expect((await rowsOf(id)).every(({ seq, fact }) => fact.seq === seq)).toBe(true);
    expect(await droppedFacts(id)).toMatchObject([
      { logId: id, why: 'half a character', fact: { text: 'b', seq: 2 } },
    ]);
  });

  it('leaves what other lanes hold in its places', async () => {
    const { id } = await aRunOf('a', 'b');
    const other = uuidv7();
    await moveToLane(id, (await rowsOf(id))[0]!.lane, other);
    const { rows } = (await keptLog(id))!;
    const strange = { ...rows[0]!, id: uuidv7(), lane: uuidv7(), seq: 2 };
    await (await database()).add('facts', strange);
    await dropFact(rows.find(({ seq }) => seq === 1)!.id, 'not wanted');
    const after = (await keptLog(id))!.rows;
    expect(after.find((row) => row.id === strange.id)?.seq).toBe(2);
    expect(after.find((row) => row.lane === other)?.seq).toBe(1);
  });

  it('cannot be dropped or put right once the server has it', async () => {
    const { id, lane } = await aRunOf('a', 'b');
    await setHeld(id, [lane], { [lane]: 2 });
    const factId = await factIdOf(id, 'b');
    await dropFact(factId, 'too late');
    const [, row] = await rowsOf(id);
    await correctFact(factId, { ...row!.fact, id: uuidv7() }, 'too late');
    expect(await standing(id)).toEqual([
      [1, 'a', 1],
      [2, 'b', 1],
    ]);
    expect(await droppedFacts(id)).toEqual([]);
  });

  it('opens a run again where it was the one that closed it, and no other does', async () => {
    const { id, add } = await aRunOf('a');
    await add({ kind: 'close', how: 'abandoned', reason: 'called away' } as never);
    expect((await keptLog(id))!.log.closed).toBe(1);
    await dropFact(await factIdOf(id, 'a'), 'half a character');
    expect((await keptLog(id))!.log.closed).toBe(1);
    const closing = (await rowsOf(id)).find(({ fact }) => fact.kind === 'close')!;
    await dropFact(closing.id, 'not yet');
    expect((await keptLog(id))!.log).toMatchObject({ closed: 0, verdict: null });
  });

  it('is no entry that is not here', async () => {
    const { id } = await aRunOf('a');
    const [fact] = (await rowsOf(id)).map((row) => row.fact);
    await dropFact(uuidv7(), 'slip');
    await correctFact(uuidv7(), { ...fact!, id: uuidv7() }, 'slip');
    expect((await standing(id)).map(([, text]) => text)).toEqual(['a']);
    expect(await droppedFacts(id)).toEqual([]);
  });

  it('is listed with its log, as long as something of it waits', async () => {
    const [one, other] = [await aRunOf('a'), await aRunOf('b')];
    const refused = {
      code: 'not-right',
      message: 'no',
      field: null,
      factId: null,
      atMs: 1,
      build: '',
    };
    await setRefused(one.id, refused);
    const listed = async () =>
      (await refusedLogs()).map((log) => log.id).filter((id) => [one.id, other.id].includes(id));
    expect(await listed()).toEqual([one.id]);
    await setRefused(one.id, null);
    expect(await listed()).toEqual([]);
  });

  it('lets its log be tried again once it is put right or dropped', async () => {
    const { id } = await aRunOf('a', 'b');
    const refused = {
      ...{ code: 'wrong-shape', message: 'Write it again.', field: null, factId: null },
      ...{ atMs: 1, build: 'this one' },
    };
    await changeLog(id, { refused });
    await dropFact(await factIdOf(id, 'b'), 'half a character');
    expect((await keptLog(id))!.log.refused).toBeNull();
    await changeLog(id, { refused });
    const [row] = await rowsOf(id);
    await correctFact(row!.id, { ...row!.fact, id: uuidv7() }, 'half a character');
    expect((await keptLog(id))!.log.refused).toBeNull();
  });
});

describe('a lane whose places are taken', () => {
  it('gives its unsent facts to another, counted from one, in their order', async () => {
    const { id, lane } = await aRunOf('a', 'b', 'c');
    await setHeld(id, [lane], { [lane]: 1 });
    const next = uuidv7();
    await moveToLane(id, lane, next);
    const rows = await rowsOf(id);
    expect(rows.filter((row) => row.lane === lane).map(({ seq }) => seq)).toEqual([1]);
    const moved = rows.filter((row) => row.lane === next);
    expect(moved.map(({ seq, fact }) => [seq, fact.seq, fact.lane])).toEqual([
      [1, 1, next],
      [2, 2, next],
    ]);
    expect(moved.map(({ fact }) => (fact as { text?: string }).text)).toEqual(['b', 'c']);
  });
});

describe('what waits', () => {
  it('is each log with a fact unsent or not opened yet, and each fact once', async () => {
    const before = { logs: (await waitingLogs()).length, facts: await countUnsent() };
    const { id, lane } = await aRunOf('a', 'b');
    expect((await waitingLogs()).map((log) => log.id)).toContain(id);
    expect(await countUnsent()).toBe(before.facts + 2);
    await setHeld(id, [lane], { [lane]: 2 });
    expect((await waitingLogs()).map((log) => log.id)).toContain(id);
    await changeLog(id, { opened: 1 });
    expect((await waitingLogs()).map((log) => log.id)).not.toContain(id);
    await setHeld(id, [lane], { [lane]: 1 });
    expect((await waitingLogs()).map((log) => log.id)).toContain(id);
    expect((await unsentFacts(id)).map(({ seq }) => seq)).toEqual([2]);
    expect((await waitingLogs()).length).toBe(before.logs + 1);
  });

  it('is in the order it was begun in, whichever of it was opened at the server', async () => {
    const ids = [(await aRunOf('a')).id, (await aRunOf('b')).id, (await aRunOf('c')).id];
    await changeLog(ids[1]!, { opened: 1 });
    const waiting = (await waitingLogs()).map((log) => log.id);
    expect(waiting.filter((id) => ids.includes(id))).toEqual(ids);
    expect(waiting).toEqual([...waiting].sort());
  });
});

describe('a fact that is written by what is no longer all', () => {
  const note = (text: string) => ({ kind: 'note', stepId: 'prepare', text }) as const;

  it('takes the place after what another page wrote', async () => {
    const { id, lane } = await aRunOf('a');
    const [one, other] = [folded((await keptLog(id))!), folded((await keptLog(id))!)];
    await recordFact({ log: one, lane }, note('b'), Date.now());
    const done = await recordFact({ log: other, lane }, note('c'), Date.now());
    expect(await standing(id)).toEqual([
      [1, 'a', 0],
      [2, 'b', 0],
      [3, 'c', 0],
    ]);
    // Who wrote the last one knows of the one before it now.
    expect('log' in done && done.log.facts).toHaveLength(3);
  });

  it('is there once, where what came in meanwhile stands in another lane', async () => {
    const { id, lane } = await aRunOf('a');
    const stale = folded((await keptLog(id))!);
    const other = uuidv7();
    await recordFact(
      { log: folded((await keptLog(id))!), lane: other },
      note('theirs'),
      Date.now(),
    );
    await recordFact({ log: stale, lane }, note('b'), Date.now());
    const mine = (await rowsOf(id)).filter((row) => row.lane === lane);
    expect(mine.map(({ seq, fact }) => [seq, 'text' in fact && fact.text])).toEqual([
      [1, 'a'],
      [2, 'b'],
    ]);
    expect(await rowsOf(id)).toHaveLength(3);
  });

  it('is not taken, and leaves nothing, where another page has closed the run', async () => {
    const { id, lane } = await aRunOf('a');
    const stale = folded((await keptLog(id))!);
    await recordFact(
      { log: folded((await keptLog(id))!), lane },
      { kind: 'close', how: 'incomplete', reason: 'called away' },
      Date.now(),
    );
    const late = { kind: 'ready', stepId: 'prepare', gauge: 'primary' } as const;
    const done = await recordFact({ log: stale, lane }, late, Date.now());
    expect(done).toEqual({ problem: 'This run is closed: nothing can be added.' });
    expect(await rowsOf(id)).toHaveLength(2);
  });

  it('is one of several that pages write at the same moment, each in a place of its own', async () => {
    const { id, lane } = await aRunOf();
    const pages = await Promise.all(Array.from({ length: 5 }, () => keptLog(id)));
    const done = await Promise.all(
      pages.map((kept, i) =>
        recordFact({ log: folded(kept!), lane }, note(`page ${i}`), Date.now()),
      ),
    );
    expect(done.filter((each) => 'problem' in each)).toEqual([]);
    const rows = await rowsOf(id);
    expect(rows.map(({ seq }) => seq)).toEqual([1, 2, 3, 4, 5]);
    expect(new Set(rows.map(({ fact }) => 'text' in fact && fact.text)).size).toBe(5);
  });
});
