import type { Unit, VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, VISIT_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import {
  addTruck,
  laneOf,
  makeStaff,
  openTestShop,
  STARTED_MS,
  type Agent,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'p');
});
afterAll(() => shop.close());

let number = 0;

/** A visit on a truck, and the way to say how its parts are. */
async function visited() {
  const unit = await addTruck(staff.lead, String((number += 1)));
  const header: VisitHeader = {
    id: uuidv7(),
    kind: 'visit',
    v: VISIT_VERSION,
    subject: { unitId: unit.id, rigId: null, partId: null },
    startedAtMs: STARTED_MS,
    offsetMs: 0,
    coreVersion: CORE_VERSION,
    made: { units: [unit], reason: 'Parts' },
  };
  await staff.technician.post('/api/logs').send(header).expect(201);
  const say = (by: Agent, partId: string, said: object, startMs = STARTED_MS) => {
    const [fact] = laneOf([[10, { kind: 'note', at: { unitId: unit.id, partId } }]], { startMs });
    const facts = [{ ...fact, v: VISIT_VERSION, ...said, kind: 'part' }];
    return by.post(`/api/logs/${header.id}/facts`).send({ facts });
  };
  const now = async () =>
    (await staff.viewer.get(`/api/units/${unit.id}`).expect(200)).body as Unit;
  return { unit, say, now };
}

describe('how a part is found in a visit', () => {
  it('stands in its unit from then on, at a revision of its own with who found it', async () => {
    const { unit, say, now } = await visited();
    await say(staff.technician, 'rear-relay', { standing: 'fitted', setPsi: 4 }).expect(200);
    const after = await now();
    expect(after.revision).toBe(unit.revision + 1);
    expect(after.parts).toEqual([
      { partId: 'rear-relay', standing: 'fitted', setPsi: 4, foundAtMs: STARTED_MS + 10_000 },
    ]);
  });

  it('goes by when it was found, not by when a phone got through', async () => {
    const { say, now } = await visited();
    const later = STARTED_MS + 600_000;
    await say(staff.lead, 'modulating-valve', { standing: 'not-fitted' }, later).expect(200);
    await say(staff.technician, 'modulating-valve', { standing: 'fitted' }).expect(200);
    const after = await now();
    expect(after.parts).toMatchObject([{ standing: 'not-fitted' }]);
    expect(after.air).toMatchObject({ modulatingValve: false });
  });

  it('is of a part such a unit has, and no viewer’s to say', async () => {
    const { say, now } = await visited();
    const answer = await say(staff.technician, 'left-wing', { standing: 'fitted' }).expect(422);
    expect((answer.body as Refusal).fields?.[0]?.field).toBe('facts.0.at.partId');
    await say(staff.viewer, 'rear-relay', { standing: 'fitted' }).expect(403);
    expect((await now()).parts).toBeUndefined();
  });
});
