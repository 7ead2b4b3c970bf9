/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { RuleSet, RunHeader, Unit } from '@keen-bleed/contract';
import { ruleSets, type NewFact } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { keptLog } from '../store/logs';
import { recordAllIn, recordIn } from '../store/recordIn';
import { startRun } from '../store/startRun';
import { startVisit } from '../store/startVisit';
import { me } from '../test/aPhone';
import { madeUpUnit } from '../test/madeUpUnit';
import { notDrained } from './drainUnit';
import { drainedHere } from './useLastDrained';

Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });
globalThis.fetch = () => Promise.reject(new TypeError('network'));
jest.mock('../air/useDrawn', () => ({ inDrawing: jest.fn() }));

const dry = (unitId: string): NewFact => ({
  kind: 'check',
  at: { unitId, partId: 'supply-tank' },
  checkId: '0/drain/supply',
  title: 'Drain the supply tank and look',
  answer: { kind: 'grade', grade: 'none' },
  said: 'dry',
});

const aVisit = async () => {
  const unit: Unit = madeUpUnit('truck', { id: uuidv7() });
  const visitId = await startVisit(me, { units: [unit], rigId: null, reason: 'Drain round' });
  return { unit, visitId };
};
const drainedAt = async (unitId: string) =>
  (await drainedHere(me.shopId, Date.now())).get(unitId) ?? null;

describe('drained, by what this device keeps', () => {
  it('stands at once without network, and is taken back after the visit was closed', async () => {
    const { unit, visitId } = await aVisit();
    expect(await drainedAt(unit.id)).toBeNull();
    const { ids, problem } = await recordAllIn(me, visitId, [dry(unit.id), dry(unit.id)]);
    expect({ count: ids.length, problem }).toEqual({ count: 2, problem: null });
    expect(await recordIn(me, visitId, { kind: 'close' })).toBeNull();
    const found = await drainedAt(unit.id);
    expect(Math.abs(found!.atMs - Date.now())).toBeLessThan(5_000);
    expect(found!.said).toContain('dry');
    expect(await notDrained(me, { visitId, ids })).toBeNull();
    expect(await drainedAt(unit.id)).toBeNull();
  });

  it('is that of a run as well, by the water found in it', async () => {
    const unit: Unit = madeUpUnit('truck', { id: uuidv7() });
    const asks = ({ steps }: RuleSet) =>
      steps.some(({ stepId, need }) => stepId === 'drain' && need !== 'off');
    const ruleSet = ruleSets.find(asks)!;
    const id = await startRun(me, { unit, towed: [], rigId: null, ruleSet, leftOut: [] });
    expect(await drainedAt(unit.id)).toBeNull();
    const { header } = (await keptLog(id))!.log as { header: RunHeader };
    const { act } = header.made.steps.find((step) => step.id === 'prepare')!;
    const items = act.kind === 'ready' ? (act.items ?? []) : [];
    const usual = Object.fromEntries(items.map(({ key, options }) => [key, options[0]!.value]));
    const look = (water: string): NewFact => ({
      ...{ kind: 'look', stepId: 'prepare' },
      answers: { ...usual, water },
    });
    expect(await recordIn(me, id, look('not-done'))).toBeNull();
    expect(await drainedAt(unit.id)).toBeNull();
    expect(await recordIn(me, id, look('dry'))).toBeNull();
    expect(await drainedAt(unit.id)).toMatchObject({ said: null });
  });

  it('is not that of another shop, nor of a record that is not here', async () => {
    const { unit, visitId } = await aVisit();
    await recordAllIn(me, visitId, [dry(unit.id)]);
    expect((await drainedHere(uuidv7(), Date.now())).size).toBe(0);
    const nowhere = await recordAllIn(me, uuidv7(), [dry(unit.id)]);
    expect(nowhere).toEqual({ ids: [], problem: 'This record is not on this device.' });
  });
});
