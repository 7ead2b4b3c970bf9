import type { Unit } from '@keen-bleed/contract';
import { CORE_VERSION, VISIT_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { failedTrucks } from '../test/failedTrucks';
import { makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'fit');
});
afterAll(() => shop.close());
const { failedTruck } = failedTrucks(() => staff);

describe('a part that is fitted', () => {
  it('puts back on the unit what came off, where a slip of the thumb fitted another', async () => {
    const { told, at, unit } = await failedTruck();
    const threads = async () =>
      ((await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit).parts
        ?.map(({ partId, thread }) => `${partId} ${thread ?? ''}`)
        .sort();
    const drain = { thread: '1/4 NPT' };
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: drain });
    const other = { ...at, partId: 'secondary-drain' };
    await told({ kind: 'fitted', at: other, repair: 'replaced', was: {}, now: drain });
    const slip = await told({
      ...{ kind: 'fitted', at, repair: 'replaced' },
      ...{ was: drain, now: { thread: 'M22x1.5' }, adapter: '1/4 NPT to M22' },
    });
    expect(await threads()).toEqual(['primary-drain M22x1.5', 'secondary-drain 1/4 NPT']);
    await told({ kind: 'retract', target: slip });
    expect(await threads()).toEqual(['primary-drain 1/4 NPT', 'secondary-drain 1/4 NPT']);
  });
});

describe('what a visit found', () => {
  const visitOf = async (unit: Unit) => {
    const header = {
      ...{ id: uuidv7(), kind: 'visit', v: VISIT_VERSION, startedAtMs: Date.now(), offsetMs: 0 },
      ...{ coreVersion: CORE_VERSION, subject: { unitId: unit.id, rigId: null, partId: null } },
      made: { units: [unit], reason: null },
    };
    await staff.technician.post('/api/logs').send(header).expect(201);
    const lane = uuidv7();
    let seq = 0;
    return async (fact: object) => {
      const made = { id: uuidv7(), lane, seq: (seq += 1), atMs: Date.now(), offsetMs: 0 };
      const answer = await staff.technician
        .post(`/api/logs/${header.id}/facts`)
        .send({ facts: [{ ...made, v: VISIT_VERSION, ...fact }] });
      expect([answer.status, answer.body]).toMatchObject([200, { held: seq }]);
    };
  };

  it('of a line and of a part stands on the unit from then on, one revision each, and not twice', async () => {
    const { unit } = await failedTruck();
    const now = async () => (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
    const before = await now();
    const tell = await visitOf(before);
    const line = {
      ...{ kind: 'line', at: { unitId: unit.id, lineId: 'rear-relay.control' } },
      ...{ standing: 'fitted', boreMm: 9, colour: 'service', note: 'chafed' },
    };
    await tell(line);
    const lined = await now();
    expect(lined.revision).toBe(before.revision + 1);
    expect(lined.lines).toMatchObject([
      { lineId: 'rear-relay.control', boreMm: 9, colour: 'service', note: 'chafed' },
    ]);
    await tell({
      ...{ kind: 'part', at: { unitId: unit.id, partId: 'rear-relay' } },
      ...{ standing: 'fitted', setPsi: 5, number: 'R5' },
    });
    const parted = await now();
    expect(parted.revision).toBe(before.revision + 2);
    expect(parted.parts?.find(({ partId }) => partId === 'rear-relay')).toMatchObject({
      ...{ setPsi: 5, number: 'R5', standing: 'fitted' },
    });
    expect(parted.lines).toEqual(lined.lines);
  });
});
