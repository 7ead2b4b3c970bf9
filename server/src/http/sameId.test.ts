import { newUnitDraft, roadTest } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { aPhoto } from '../test/aPhoto';
import {
  addTruck,
  addUnit,
  makeStaff,
  openTestShop,
  runHeader,
  STARTED_MS,
  truckDraft,
  wholeRun,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'same');
});
afterAll(() => shop.close());

const taken = { code: 'id-taken' };

describe('an id that is used already', () => {
  it('is a retry where it says the same of a unit, even after the unit was edited, and refused otherwise', async () => {
    const id = uuidv7();
    const draft = truckDraft('10');
    await staff.lead.post('/api/units').send({ id, draft }).expect(201);
    await staff.lead.post('/api/units').send({ id, draft }).expect(200);
    await staff.lead
      .put(`/api/units/${id}`)
      .send({ revision: 1, draft: { ...draft, name: 'Renamed' } })
      .expect(200);
    await staff.lead.post('/api/units').send({ id, draft }).expect(200);
    const other = await staff.lead
      .post('/api/units')
      .send({ id, draft: truckDraft('11') })
      .expect(409);
    expect(other.body).toMatchObject(taken);
  });

  it('is a retry where it says the same of a rule set, even after it was edited, and refused otherwise', async () => {
    const { id: _, revision: __, basedOn: ___, ...draft } = roadTest;
    const sent = { id: uuidv7(), basedOn: 'road-test', draft: { ...draft, title: 'Ours' } };
    const post = (change = {}) => staff.lead.post('/api/rule-sets').send({ ...sent, ...change });
    await post().expect(201);
    await post().expect(200);
    await staff.lead
      .put(`/api/rule-sets/${sent.id}`)
      .send({ revision: 1, draft: { ...sent.draft, title: 'Renamed' } })
      .expect(200);
    expect((await post().expect(200)).body).toMatchObject({ revision: 2, title: 'Renamed' });
    for (const other of [{ basedOn: 'in-service' }, { draft: { ...draft, title: 'Another' } }]) {
      expect((await post(other).expect(409)).body).toMatchObject(taken);
    }
  });

  it('is refused for a run begun at another moment', async () => {
    const unit = await addTruck(staff.lead, '12');
    const header = runHeader(unit);
    await staff.technician.post('/api/logs').send(header).expect(201);
    await staff.technician.post('/api/logs').send(header).expect(200);
    const other = await staff.technician
      .post('/api/logs')
      .send({ ...header, startedAtMs: STARTED_MS + 1 })
      .expect(409);
    expect(other.body).toMatchObject(taken);
  });

  it('is refused for an entry that says something else, by its field, and what came before it is kept', async () => {
    const unit = await addTruck(staff.lead, '13');
    const header = runHeader(unit);
    await staff.technician.post('/api/logs').send(header).expect(201);
    const facts = wholeRun();
    const send = (some: object[]) =>
      staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts: some });
    await send(facts.slice(0, 2)).expect(200);
    const again = await send(facts.slice(0, 3)).expect(200);
    expect(again.body).toMatchObject({ held: 3 });
    // The device’s clock was set between the two deliveries: the offset is told otherwise, and the entry is the same.
    await send([{ ...facts[1], offsetMs: null }]).expect(200);
    const changed = { ...facts[1], readingPsi: 86 };
    const refused = await send([facts[3]!, changed]).expect(409);
    expect(refused.body).toMatchObject({ ...taken, fields: [{ field: 'facts.1.id' }] });
  });

  it('is refused for another photo', async () => {
    const unit = await addTruck(staff.lead, '14');
    const header = runHeader(unit);
    await staff.technician.post('/api/logs').send(header).expect(201);
    const id = uuidv7();
    const put = async (shade: number) =>
      staff.technician
        .put(`/api/photos/${id}?logId=${header.id}`)
        .set('content-type', 'image/jpeg')
        .send(await aPhoto(shade));
    expect((await put(1)).status).toBe(201);
    expect((await put(1)).status).toBe(200);
    const other = await put(2);
    expect(other.status).toBe(409);
    expect(other.body).toMatchObject(taken);
  });
});

describe('a coupled unit', () => {
  it('changes in what leaves it coupled, and in nothing else until it is uncoupled', async () => {
    const tractor = await addUnit(staff.lead, {
      ...newUnitDraft('tractor', 2015),
      ...{ number: '20', name: 'Puller' },
    });
    const trailer = await addUnit(staff.lead, {
      ...newUnitDraft('trailer', 2015),
      ...{ number: '21', name: 'Box' },
    });
    const rigId = uuidv7();
    await staff.technician
      .post('/api/rigs')
      .send({ id: rigId, unitIds: [tractor.id, trailer.id] })
      .expect(201);
    const { id, revision, retiredAtMs: _retiredAtMs, ...draft } = trailer;
    const edit = (change: object, at = revision) =>
      staff.technician
        .put(`/api/units/${id}`)
        .send({ revision: at, draft: { ...draft, ...change } });
    const asTruck = { ...newUnitDraft('truck', 2015), number: '21', name: 'Box' };
    const refused = await edit(asTruck).expect(409);
    expect(refused.body).toMatchObject({ code: 'coupled-already' });
    expect((refused.body as Refusal).message).toContain('Uncouple it first');
    await edit({ name: 'Big box' }).expect(200);
    const retired = await staff.lead.post(`/api/units/${id}/retire`).send({ retired: true });
    expect(retired.status).toBe(409);
    await staff.technician.post(`/api/rigs/${rigId}/uncouple`).send({ revision: 1 }).expect(200);
    await staff.lead.post(`/api/units/${id}/retire`).send({ retired: true }).expect(200);
    await staff.lead.post(`/api/units/${id}/retire`).send({ retired: false }).expect(200);
    await edit(asTruck, 2).expect(200);
  });

  it('is either coupled or changed, however close the two come', async () => {
    for (let round = 0; round < 8; round += 1) {
      const tractor = await addUnit(staff.lead, {
        ...newUnitDraft('tractor', 2015),
        ...{ number: `a${round}`, name: 'Puller' },
      });
      const trailer = await addUnit(staff.lead, {
        ...newUnitDraft('trailer', 2015),
        ...{ number: `b${round}`, name: 'Box' },
      });
      const answers = await Promise.all([
        staff.technician
          .post('/api/rigs')
          .send({ id: uuidv7(), unitIds: [tractor.id, trailer.id] }),
        staff.lead.put(`/api/units/${trailer.id}`).send({
          revision: 1,
          draft: { ...newUnitDraft('truck', 2015), number: `b${round}`, name: 'Box' },
        }),
      ]);
      expect(answers.filter(({ status }) => status < 300)).toHaveLength(1);
    }
  });
});
