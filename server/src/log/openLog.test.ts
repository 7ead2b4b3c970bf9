import { CORE_VERSION, VISIT_VERSION } from '@keen-bleed/core';
import type { Unit } from '@keen-bleed/contract';
import { v7 as uuidv7 } from 'uuid';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let [unit, other]: Unit[] = [];
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'open');
  unit = await addTruck(staff.lead, '801');
  other = await addTruck(staff.lead, '802');
});
afterAll(() => shop.close());

const visitOf = (of: Unit, change: object = {}) => ({
  ...{ id: uuidv7(), kind: 'visit', v: VISIT_VERSION },
  subject: { unitId: of.id, rigId: null, partId: null },
  ...{ startedAtMs: runHeader(of).startedAtMs, offsetMs: 0, coreVersion: CORE_VERSION },
  made: { units: [of], reason: null },
  ...change,
});

describe('a record that is opened twice', () => {
  it('is the same where whose, what, on what and when it was begun are the same', async () => {
    const header = runHeader(unit!);
    const open = (sent: object, by = staff.technician) => by.post('/api/logs').send(sent);
    await open(header).expect(201);
    await open(header).expect(200);
    const taken = { code: 'id-taken', message: 'Another record has this id.' };
    for (const [sent, by] of [
      // Each differs from it in one thing.
      [{ ...runHeader(other!), id: header.id }, staff.technician],
      [visitOf(unit!, { id: header.id }), staff.technician],
      [{ ...header, startedAtMs: header.startedAtMs - 1 }, staff.technician],
      [header, staff.lead],
    ] as const) {
      expect((await open(sent, by).expect(409)).body).toMatchObject(taken);
    }
  });

  it('is anybody’s to open again where all of the shop write in it', async () => {
    const header = visitOf(unit!);
    await staff.technician.post('/api/logs').send(header).expect(201);
    await staff.lead.post('/api/logs').send(header).expect(200);
  });

  it('is not opened on a unit, or a rig, that the shop does not have', async () => {
    const stranger = { ...unit!, id: uuidv7() };
    await staff.technician.post('/api/logs').send(visitOf(stranger)).expect(404);
    const rigId = uuidv7();
    const header = runHeader(unit!);
    const refused = await staff.technician
      .post('/api/logs')
      .send({ ...header, subject: { ...header.subject, rigId } })
      .expect(422);
    expect(refused.body).toMatchObject({ fields: [{ field: 'subject.rigId' }] });
  });
});
