import type { AnyFact, AnyHeader, RunHeader } from '@keen-bleed/contract';
import { anyLogKind, FoldedLog } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { madeUpRig } from '../test/madeUpRig';
import { laneOf, runHeader, STARTED_MS, wholeRun } from '../test/testShop';
import { judged } from './judged';
import { storedLog } from './storedLog';

const RECEIVED_MS = STARTED_MS + 86_400_000;
const of = (facts: readonly AnyFact[], change: Partial<RunHeader> = {}) =>
  judged(folded({ ...runHeader(madeUpRig.unit), ...change }, facts), RECEIVED_MS);
const folded = (header: AnyHeader, facts: readonly AnyFact[]) =>
  new FoldedLog(anyLogKind(header.kind), header, facts);
const END_MS = wholeRun().at(-1)!.atMs;

it('counts a run that goes on, and says nothing of how it will end', () => {
  const facts = wholeRun().slice(0, 4);
  const { log, units } = of(facts);
  expect(log).toEqual({
    startedAtMs: STARTED_MS,
    closedAtMs: null,
    lastAtMs: facts.at(-1)!.atMs,
    timeUnsure: false,
    factCount: 4,
  });
  expect(units).toEqual({ startedAtMs: STARTED_MS, closedAtMs: null, rankMs: null });
});

it('was last written in when it was begun, where nothing was', () => {
  expect(of([]).log).toMatchObject({ lastAtMs: STARTED_MS, factCount: 0, timeUnsure: false });
  expect(of([], { offsetMs: null }).log.timeUnsure).toBe(true);
});

it.each([
  ['pass', 1],
  ['fail', 6],
])('judges a run once it is closed: %s', (verdict, lossPsi) => {
  const { log, units } = of(wholeRun(lossPsi));
  expect(log).toMatchObject({ verdict, closedAtMs: END_MS, lastAtMs: END_MS });
  expect(log.result).not.toBeNull();
  expect(units).toMatchObject({ verdict, closedAtMs: END_MS, rankMs: END_MS, whole: true });
  expect((log.owes ?? []).length > 0).toBe(verdict === 'fail');
});

it('tells times by the server’s clock, as far as the device’s is known', () => {
  const aheadMs = 7_200_000;
  const facts = wholeRun(1, { startMs: STARTED_MS + aheadMs, offsetMs: aheadMs });
  const { log } = of(facts, { startedAtMs: STARTED_MS + aheadMs, offsetMs: aheadMs });
  expect(log).toMatchObject({ startedAtMs: STARTED_MS, closedAtMs: END_MS, timeUnsure: false });
});

it('lists a failure whose time cannot be told as the newest, and nothing else', () => {
  const unsure = (lossPsi: number) => of(wholeRun(lossPsi, { offsetMs: null })).units;
  expect(unsure(6).rankMs).toBe(8_640_000_000_000_000);
  expect(unsure(1).rankMs).toBeLessThan(8_640_000_000_000_000);
  expect(of(wholeRun(6)).units.rankMs).toBe(END_MS);
});

it('takes a run of what is owed for no whole test', () => {
  const header = runHeader(madeUpRig.unit);
  const retestOf = [uuidv7()];
  expect(of(wholeRun(), { made: { ...header.made, retestOf } }).units.whole).toBe(false);
});

it('stands in rows as if it had come in fact by fact, on each of its units', () => {
  const header = runHeader(madeUpRig.unit, [{ ...madeUpRig.unit, id: uuidv7(), number: '22' }]);
  const facts = [
    ...wholeRun(),
    ...laneOf([[0, { kind: 'note', text: 'seen later' }]], { startMs: END_MS + 1_000 }),
  ];
  const people = new Map(facts.map(({ id }, n) => [id, `person ${n}`]));
  const rows = storedLog(
    'shop',
    (fact) => (fact ? (people.get(fact.id) ?? '') : 'opener'),
    header,
    facts,
    RECEIVED_MS,
  );
  expect(rows.log).toMatchObject({
    ...{ shopId: 'shop', id: header.id, kind: 'run', personId: 'opener', verdict: 'pass' },
    ...{ unitId: madeUpRig.unit.id, factCount: facts.length, lastAtMs: END_MS + 1_000 },
    receivedAt: new Date(RECEIVED_MS),
  });
  expect(rows.units.map(({ unitId, logId, verdict }) => [unitId, logId, verdict])).toEqual([
    [madeUpRig.unit.id, header.id, 'pass'],
    [header.made.towed[0]!.id, header.id, 'pass'],
  ]);
  expect(
    rows.facts.map(({ id, personId, place, receivedAtMs }) => [id, personId, place, receivedAtMs]),
  ).toEqual(facts.map(({ id }, n) => [id, `person ${n}`, n + 1, RECEIVED_MS]));
  expect(new Set(rows.facts.map(({ link }) => link)).size).toBe(facts.length);
});
