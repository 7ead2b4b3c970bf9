import { v7 as uuidv7 } from 'uuid';
import {
  addTruck,
  makeStaff,
  openTestShop,
  truckDraft,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let others: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'u');
  others = await makeStaff(shop, 'o');
});
afterAll(() => shop.close());

describe('units', () => {
  it('are added by technicians and leads, and read back as they were given', async () => {
    const draft = truckDraft('11', { makerLimits: { buildUpMaxS: 40 } });
    const made = await staff.technician
      .post('/api/units')
      .send({ id: uuidv7(), draft })
      .expect(201);
    expect(made.body).toMatchObject({ ...draft, revision: 1, retiredAtMs: null });
    const { id } = made.body as { id: string };
    const read = await staff.viewer.get(`/api/units/${id}`).expect(200);
    expect(read.body).toEqual(made.body);
  });

  it('are no viewer’s to add, change or retire, nor a technician’s to retire', async () => {
    const unit = await addTruck(staff.lead, '12');
    await staff.viewer
      .post('/api/units')
      .send({ id: uuidv7(), draft: truckDraft('13') })
      .expect(403);
    await staff.viewer
      .put(`/api/units/${unit.id}`)
      .send({ revision: 1, draft: truckDraft('12') })
      .expect(403);
    await staff.viewer.post(`/api/units/${unit.id}/retire`).send({ retired: true }).expect(403);
    await staff.technician.post(`/api/units/${unit.id}/retire`).send({ retired: true }).expect(403);
    await staff.lead.post(`/api/units/${unit.id}/retire`).send({ retired: true }).expect(200);
  });

  it('keep what is known of their lines when a page sends none', async () => {
    const unit = await addTruck(staff.lead, '14');
    const lines = [{ lineId: 'rear-relay.supply', standing: 'fitted', foundAtMs: 1 }];
    const put = (revision: number, draft: object) =>
      staff.lead.put(`/api/units/${unit.id}`).send({ revision, draft }).expect(200);
    await put(1, { ...truckDraft('14'), lines });
    const after = await put(2, truckDraft('14'));
    expect(after.body).toMatchObject({ revision: 3, lines });
  });

  it('cannot share a number, whatever its letters; a retired one gives its number free', async () => {
    const first = await addTruck(staff.lead, 'T9');
    const again = await staff.lead
      .post('/api/units')
      .send({ id: uuidv7(), draft: truckDraft('t9') })
      .expect(409);
    expect(again.body).toMatchObject({ code: 'number-taken', fields: [{ field: 'number' }] });
    await staff.lead.post(`/api/units/${first.id}/retire`).send({ retired: true }).expect(200);
    await addTruck(staff.lead, 't9');
    await staff.lead.post(`/api/units/${first.id}/retire`).send({ retired: false }).expect(409);
  });

  it('are made once however often the same form is sent', async () => {
    for (let round = 0; round < 12; round += 1) {
      const body = { id: uuidv7(), draft: truckDraft(`14${round}`) };
      const answers = await Promise.all(
        [1, 2, 3].map(() => staff.lead.post('/api/units').send(body)),
      );
      expect(answers.map((each) => each.status).sort()).toEqual([200, 200, 201]);
    }
  });

  it('refuse a governor with cut-in above cut-out, naming the field', async () => {
    const draft = truckDraft('15', { governor: { cutInPsi: 130, cutOutPsi: 110 } });
    const answer = await staff.lead.post('/api/units').send({ id: uuidv7(), draft }).expect(422);
    expect(answer.body).toMatchObject({
      code: 'not-right',
      fields: [{ field: 'governor.cutInPsi' }],
    });
  });

  it('are not overwritten by an edit that began before another’s', async () => {
    const unit = await addTruck(staff.lead, '16');
    const edit = (buildYear: number) => ({ revision: 1, draft: truckDraft('16', { buildYear }) });
    const done = await staff.lead.put(`/api/units/${unit.id}`).send(edit(2001)).expect(200);
    expect(done.body).toMatchObject({ revision: 2, buildYear: 2001 });
    await staff.technician.put(`/api/units/${unit.id}`).send(edit(2002)).expect(409);
    const read = await staff.lead.get(`/api/units/${unit.id}`);
    expect((read.body as { buildYear: number }).buildYear).toBe(2001);
  });

  it('of another shop are as if they were not there', async () => {
    const unit = await addTruck(staff.lead, '17');
    await others.lead.get(`/api/units/${unit.id}`).expect(404);
    await others.lead
      .put(`/api/units/${unit.id}`)
      .send({ revision: 1, draft: truckDraft('17') })
      .expect(404);
    await others.lead.post(`/api/units/${unit.id}/retire`).send({ retired: true }).expect(404);
    const runs = await others.lead.get(`/api/units/${unit.id}/runs`).expect(200);
    expect(runs.body).toEqual([]);
    const yard = await others.lead.get('/api/yard').expect(200);
    expect(yard.body).toEqual([]);
    // The number is free in the other shop, and an id of ours in their hands makes a unit of theirs.
    await others.lead
      .post('/api/units')
      .send({ id: unit.id, draft: truckDraft('17', { name: 'Theirs' }) })
      .expect(201);
    const ours = await staff.lead.get(`/api/units/${unit.id}`);
    expect((ours.body as { name: string }).name).toBe('Tipper');
  });

  it.each(['nonsense', '018f0000-0000-7000-8000-00000000dead', '%00', "1'--"])(
    'answer 404 to the id %s',
    async (id) => {
      await staff.lead.get(`/api/units/${id}`).expect(404);
    },
  );
});
