import { VISIT_VERSION, CORE_VERSION } from '@keen-bleed/core';
import type { Unit, VisitHeader } from '@keen-bleed/contract';
import { v7 as uuidv7 } from 'uuid';
import { failedTrucks, retested } from '../test/failedTrucks';
import { makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'proof');
});
afterAll(() => shop.close());
const { ran, failedTruck, anotherTruck } = failedTrucks(() => staff);

/** A visit of a unit with one check in it, done at a moment by a clock that is so far ahead; gives what names it. */
async function soaped(unit: Unit, atMs: number, { offsetMs = 0, kind = 'check' } = {}) {
  const header: VisitHeader = {
    id: uuidv7(),
    kind: 'visit',
    v: VISIT_VERSION,
    subject: { unitId: unit.id, rigId: null, partId: null },
    startedAtMs: atMs - 60_000,
    offsetMs,
    coreVersion: CORE_VERSION,
    made: { units: [unit], reason: null },
  };
  await staff.technician.post('/api/logs').send(header).expect(201);
  const stamp = { id: uuidv7(), lane: uuidv7(), seq: 1, atMs, offsetMs, v: VISIT_VERSION };
  const said =
    kind === 'check'
      ? {
          kind,
          at: { unitId: unit.id, partId: 'primary-drain' },
          checkId: '0/wet/primary tank',
          title: 'Soap the primary drain',
          answer: { kind: 'grade', grade: 'dry' },
          said: 'dry',
        }
      : { kind, at: null, text: 'looked at it' };
  await staff.technician
    .post(`/api/logs/${header.id}/facts`)
    .send({ facts: [{ ...stamp, ...said }] })
    .expect(200);
  return { logId: header.id, factId: stamp.id };
}

/** A truck whose drain was sealed anew, and whose hold has passed since; the soap is still owed. */
async function sealed() {
  const job = await failedTruck();
  const { header, told, at, unit } = job;
  await told({ kind: 'proven', at, text: 'does not seal', by: 'Soap: stream' });
  await told({ kind: 'fitted', at, repair: 'reseated', was: {}, now: {} });
  const now = (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
  const run = await ran(now, 1, { startMs: Date.now() + 1_000, retestOf: [header.id] });
  await told(retested('step:static-hold', run));
  expect((await job.row())?.owed.map(({ id }) => id)).toEqual(['check:0/primary-drain/soap']);
  /** What stands against its release once its soap is said to have passed. */
  const against = async (logId: string, more: object = {}) => {
    await told(retested('check:0/primary-drain/soap', logId, more));
    await told({ kind: 'ask-release' }, staff.lead);
    const answer = await staff.viewer.get(`/api/jobs/${header.id}/blocks`).expect(200);
    return (answer.body as { blocks: string[] }).blocks;
  };
  return { ...job, against };
}

const LATER_MS = 60_000;

describe('a retest that is a check', () => {
  it('releases where the shop has that check, made after the repair', async () => {
    const { unit, against, row } = await sealed();
    const { logId, factId } = await soaped(unit, Date.now() + LATER_MS);
    expect(await against(logId, { factId })).toEqual([]);
    expect(await row()).toMatchObject({ released: true, holds: [] });
  });

  it('does not where it was made before the repair, by whatever clock', async () => {
    const { unit, against, row } = await sealed();
    const early = await soaped(unit, Date.now() - LATER_MS);
    expect(await against(early.logId, { factId: early.factId })).toEqual([
      expect.stringContaining('that check was made before the repair. Test it again.'),
    ]);
    // A clock that is two hours ahead does not make it later.
    const ahead = 7_200_000;
    const fast = await soaped(unit, Date.now() - LATER_MS + ahead, { offsetMs: ahead });
    expect(await against(fast.logId, { factId: fast.factId })).toEqual([
      expect.stringContaining('made before the repair'),
    ]);
    expect(await row()).toMatchObject({ released: false });
    // One that is two hours behind does not make it earlier.
    const slow = await soaped(unit, Date.now() + LATER_MS - ahead, { offsetMs: -ahead });
    expect(await against(slow.logId, { factId: slow.factId })).toEqual([]);
  });

  it('does not where it is not told which, is not there, is no check, or is of another vehicle', async () => {
    const { unit, against, row } = await sealed();
    const { logId } = await soaped(unit, Date.now() + LATER_MS);
    expect(await against(logId)).toEqual([
      expect.stringContaining('it does not say which check it was tested by'),
    ]);
    const missing = [expect.stringContaining('the check it was tested by has not come yet')];
    expect(await against(logId, { factId: uuidv7() })).toEqual(missing);
    const noted = await soaped(unit, Date.now() + LATER_MS, { kind: 'note' });
    expect(await against(noted.logId, { factId: noted.factId })).toEqual(missing);
    const other = await soaped(await anotherTruck(), Date.now() + LATER_MS);
    expect(await against(other.logId, { factId: other.factId })).toEqual([
      expect.stringContaining('that record is of another vehicle'),
    ]);
    expect(await row()).toMatchObject({ released: false });
  });
});
