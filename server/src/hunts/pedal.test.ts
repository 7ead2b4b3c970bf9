import type { PedalStanding } from '@keen-bleed/contract';
import { v7 as uuidv7 } from 'uuid';
import { addTruck, makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';
import { LocalBus } from '../bus/bus';
import { PedalCalls } from './pedalCalls';

describe('calls to the pedal', () => {
  it('stand until the next, and tell the caller what the helper’s phone shows and how long ago', () => {
    let nowMs = 1_000;
    const calls = new PedalCalls(new LocalBus(), () => nowMs);
    expect(calls.call('shop', 'unit', 'press', 1)).toEqual({ call: 'press', seq: 1, heard: null });
    calls.heard('shop', 'unit', 1);
    nowMs += 2_500;
    // The same call again: the caller is still there.
    expect(calls.call('shop', 'unit', 'press', 1).heard).toEqual({ seq: 1, agoMs: 2_500 });
    expect(calls.call('shop', 'unit', 'release', 2)).toMatchObject({ call: 'release', seq: 2 });
    // One that was under way while the next was called is too late.
    expect(calls.call('shop', 'unit', 'press', 1)).toMatchObject({ call: 'release', seq: 2 });
    // Whoever calls after the last caller has gone is not held up by what that one counted to.
    calls.call('shop', 'unit', 'press', 1_000_000);
    calls.heard('shop', 'unit', 1_000_000);
    nowMs += 11_000;
    expect(calls.call('shop', 'unit', 'release', 1)).toEqual({
      call: 'release',
      seq: 1,
      heard: null,
    });
  });

  it('of another unit or shop are another pedal, and one nobody uses is forgotten', () => {
    let nowMs = 0;
    const calls = new PedalCalls(new LocalBus(), () => nowMs);
    calls.call('shop', 'unit', 'press', 3);
    expect(calls.follow('shop', 'other').standing.call).toBeNull();
    expect(calls.follow('another', 'unit').standing.call).toBeNull();
    nowMs = 3_600_000;
    calls.follow('shop', 'third');
    expect(calls.size).toBe(1);
  });
});

describe('the pedal of a unit', () => {
  let shop: TestShop;
  let staff: Staff;
  let others: Staff;
  let unitId: string;
  beforeAll(async () => {
    shop = await openTestShop();
    staff = await makeStaff(shop, 'r');
    others = await makeStaff(shop, 's');
    unitId = (await addTruck(staff.lead, '71')).id;
  });
  afterAll(() => shop.close());

  it('is called by those who record and heard by anybody of the shop', async () => {
    const call = { call: 'press', seq: 1 };
    await staff.viewer.post(`/api/units/${unitId}/pedal`).send(call).expect(403);
    await staff.technician.post(`/api/units/${unitId}/pedal`).send(call).expect(200);
    await staff.viewer.post(`/api/units/${unitId}/pedal/heard`).send({ seq: 1 }).expect(200);
    const told = (await staff.technician.post(`/api/units/${unitId}/pedal`).send(call).expect(200))
      .body as PedalStanding;
    expect(told).toMatchObject({ call: 'press', seq: 1, heard: { seq: 1 } });
    expect(told.heard!.agoMs).toBeLessThan(5_000);
  });

  it('is not there for another shop, nor is one of no unit, and what is called has its shape', async () => {
    const call = { call: 'press', seq: 9 };
    await others.lead.post(`/api/units/${unitId}/pedal`).send(call).expect(404);
    await others.lead.post(`/api/units/${unitId}/pedal/heard`).send({ seq: 9 }).expect(404);
    await others.lead.get(`/api/units/${unitId}/pedal/live`).expect(404);
    await staff.lead.post(`/api/units/${uuidv7()}/pedal`).send(call).expect(404);
    const refused = await staff.lead
      .post(`/api/units/${unitId}/pedal`)
      .send({ call: 'stamp', seq: -1 })
      .expect(422);
    expect(
      (refused.body as { fields: { field: string }[] }).fields.map(({ field }) => field),
    ).toEqual(expect.arrayContaining(['call', 'seq']));
  });
});
