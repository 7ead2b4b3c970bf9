import type { RunFact, Unit, YardRow } from '@keen-bleed/contract';
import { newUnitDraft } from '@keen-bleed/core';
import { eq } from 'drizzle-orm';
import { units } from '../db/schema';
import {
  addTruck,
  addUnit,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  STARTED_MS,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { fillFailures } from './refreshFailures';

let shop: TestShop;
let staff: Staff;
let strangers: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'x');
  strangers = await makeStaff(shop, 'y');
});
afterAll(() => shop.close());

let number = 500;
const newTruck = () => addTruck(staff.lead, String((number += 1)));

async function keep(unit: Unit, facts: RunFact[], towed: Unit[] = []): Promise<string> {
  const header = runHeader(unit, towed);
  await staff.technician.post('/api/logs').send(header).expect(201);
  await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts }).expect(200);
  return header.id;
}
/** Each run of a test an hour after the one before it. */
let hours = 0;
const later = () => ({ startMs: STARTED_MS + (hours += 1) * 3_600_000 });
const rowOf = async (unit: Unit) =>
  ((await staff.viewer.get('/api/yard')).body as YardRow[]).find((row) => row.unit.id === unit.id);
const keysOf = async (unit: Unit) => (await rowOf(unit))?.failures.map(({ key }) => key);

/** Every step skipped for a reason, and closed. */
const nothingDone = () =>
  laneOf(
    [
      [5, { kind: 'ready', stepId: 'prepare', gauge: 'primary' }],
      ...['build-up', 'cut-out', 'cut-in', 'static-hold'].map(
        (stepId) => [5, { kind: 'skip', stepId, reason: 'No time' }] as const,
      ),
      [5, { kind: 'close', how: 'complete' }],
    ] as Parameters<typeof laneOf>[0],
    later(),
  );

describe('what has failed', () => {
  it('stays on the yard until it passes: skipping every step clears nothing', async () => {
    const unit = await newTruck();
    await keep(unit, wholeRun(6, later()));
    expect(await keysOf(unit)).toEqual(['figure:static-leak']);
    await keep(unit, nothingDone());
    expect(await keysOf(unit)).toEqual(['figure:static-leak']);
    expect((await rowOf(unit))?.last?.verdict).toBe('incomplete');
    await keep(unit, wholeRun(1, later()));
    expect(await keysOf(unit)).toEqual([]);
  });

  it.each([
    ['that says it is of the year 2099', { startMs: Date.UTC(2099, 0), offsetMs: 0 }],
    ['that says it is of the year 2006', { startMs: Date.UTC(2006, 0), offsetMs: 0 }],
    ['whose clock is said to be ten years slow', { offsetMs: -10 * 365 * 86_400_000 }],
    ['whose clock is said to be ten years fast', { offsetMs: 10 * 365 * 86_400_000 }],
  ])('is not taken away by a run %s, and may still be opened by one', async (_, times) => {
    const unit = await newTruck();
    await keep(unit, wholeRun(6, later()));
    await keep(unit, wholeRun(1, { ...later(), ...times }));
    expect(await keysOf(unit)).toEqual(['figure:static-leak']);
    expect((await rowOf(unit))?.last).toMatchObject({ verdict: 'fail', timeUnsure: false });
    // A good one whose times can be does take it away; a bad one of no time opens it again.
    await keep(unit, wholeRun(1, later()));
    expect(await keysOf(unit)).toEqual([]);
    await keep(unit, wholeRun(6, { ...later(), ...times }));
    expect(await keysOf(unit)).toEqual(['figure:static-leak']);
    expect((await rowOf(unit))?.last).toMatchObject({ verdict: 'fail', timeUnsure: true });
  });

  it('is closed by a lead with a written reason, by nobody else, and once', async () => {
    const unit = await newTruck();
    const runId = await keep(unit, wholeRun(6, later()));
    const body = { runId, key: 'figure:static-leak', reason: 'The gauge was being changed' };
    await staff.technician.post('/api/failures/close').send(body).expect(403);
    await staff.viewer.post('/api/failures/close').send(body).expect(403);
    await strangers.lead.post('/api/failures/close').send(body).expect(404);
    const noReason = await staff.lead.post('/api/failures/close').send({ ...body, reason: '' });
    expect(noReason.status).toBe(422);
    expect(await keysOf(unit)).toEqual(['figure:static-leak']);
    await staff.lead.post('/api/failures/close').send(body).expect(200);
    expect(await keysOf(unit)).toEqual([]);
    // Sent again after a lost answer it is held already; with other words it is refused, and changes nothing.
    await staff.lead.post('/api/failures/close').send(body).expect(200);
    const other = { ...body, reason: 'Another story' };
    await staff.lead.post('/api/failures/close').send(other).expect(422);
    // The same thing failing again is a failure again.
    await keep(unit, wholeRun(6, later()));
    expect(await keysOf(unit)).toEqual(['figure:static-leak']);
  });

  it('is nobody’s to close while its run goes on', async () => {
    const runId = await keep(await newTruck(), wholeRun(6, later()).slice(0, -1));
    const close = { runId, key: 'figure:static-leak', reason: 'Gauge was wrong' };
    const refused = await staff.lead.post('/api/failures/close').send(close).expect(404);
    expect(refused.body).toMatchObject({ code: 'not-found' });
  });

  it('is lost by neither of two runs that close at once', async () => {
    for (let n = 0; n < 6; n += 1) {
      const unit = await newTruck();
      const open = [];
      for (const facts of [wholeRun(6, later()), nothingDone()]) {
        const header = runHeader(unit);
        await staff.technician.post('/api/logs').send(header).expect(201);
        open.push(() => staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts }));
      }
      for (const answer of await Promise.all(open.map((close) => close()))) {
        expect(answer.status).toBe(200);
      }
      expect(await keysOf(unit)).toEqual(['figure:static-leak']);
    }
  });

  it('stays on a unit whose neighbour runs with yet another', async () => {
    const [failing, other] = [await newTruck(), await newTruck()];
    const draft = { ...newUnitDraft('trailer', 2015), number: String((number += 1)), name: 'Bulk' };
    const trailer = await addUnit(staff.lead, draft);
    await keep(failing, wholeRun(6, later()));
    await keep(failing, wholeRun(1, later()), [trailer]);
    await keep(other, wholeRun(1, later()), [trailer]);
    await keep(other, wholeRun(1, later()));
    expect(await keysOf(failing)).toEqual(['figure:static-leak']);
  });

  it('stands in the calendar as a retest owed', async () => {
    const unit = await newTruck();
    await keep(unit, wholeRun(6, later()));
    const calendar = (await staff.viewer.get('/api/due.ics').expect(200)).text;
    expect(calendar).toContain(`OUT OF SERVICE: Tipper ${unit.number}`);
  });

  it('is worked out for units of before it was kept', async () => {
    const unit = await newTruck();
    await keep(unit, wholeRun(6, later()));
    await shop.database.db.update(units).set({ failures: null }).where(eq(units.id, unit.id));
    expect(await keysOf(unit)).toEqual([]);
    await fillFailures(shop.database.db);
    expect(await keysOf(unit)).toEqual(['figure:static-leak']);
  });
});
