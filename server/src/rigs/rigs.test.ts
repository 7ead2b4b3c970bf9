import type { Rig, LogRecord, RunRow, Unit, YardRow } from '@keen-bleed/contract';
import { newUnitDraft, roadTest, runMade } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import {
  addUnit,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let others: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'c');
  others = await makeStaff(shop, 'd');
});
afterAll(() => shop.close());

let number = 0;
const add = (kind: Unit['kind'], by = staff.lead) =>
  addUnit(by, { ...newUnitDraft(kind, 2015), number: String((number += 1)), name: kind });
const couple = (ids: string[], agent = staff.technician, id = uuidv7()) =>
  agent.post('/api/rigs').send({ id, unitIds: ids });

describe('a rig', () => {
  it('is coupled front to rear, once, and listed until it is uncoupled', async () => {
    const units = [await add('tractor'), await add('trailer')];
    const ids = units.map((unit) => unit.id);
    const id = uuidv7();
    const made = (await couple(ids, staff.technician, id).expect(201)).body as Rig;
    expect(made).toMatchObject({ id, unitIds: ids, revision: 1, uncoupledAtMs: null });
    // A retry after a lost answer changes nothing.
    await couple(ids, staff.technician, id).expect(200);
    const other = await couple([...ids].reverse(), staff.technician, id).expect(409);
    expect(other.body).toMatchObject({ code: 'id-taken' });
    const listed = (await staff.viewer.get('/api/rigs')).body as Rig[];
    expect(listed.filter((rig) => rig.id === id)).toHaveLength(1);
    await staff.technician.post(`/api/rigs/${id}/uncouple`).send({ revision: 7 }).expect(409);
    await staff.technician.post(`/api/rigs/${id}/uncouple`).send({ revision: 1 }).expect(200);
    // Said twice, as after a lost answer, it is the same.
    const again = await staff.technician
      .post(`/api/rigs/${id}/uncouple`)
      .send({ revision: 1 })
      .expect(200);
    expect(again.body).toMatchObject({ id, unitIds: ids, revision: 2 });
    expect((again.body as Rig).uncoupledAtMs).not.toBeNull();
    const after = (await staff.viewer.get('/api/rigs')).body as Rig[];
    expect(after.some((rig) => rig.id === id)).toBe(false);
    // Free again for another rig.
    await couple(ids).expect(201);
  });

  it('is coupled once however often the same phone says so at once', async () => {
    for (let round = 0; round < 12; round += 1) {
      const ids = [(await add('tractor')).id, (await add('trailer')).id];
      const id = uuidv7();
      const answers = await Promise.all([1, 2, 3].map(() => couple(ids, staff.technician, id)));
      expect(answers.map((each) => each.status).sort()).toEqual([200, 200, 201]);
    }
  });

  it('takes no unit that is coupled elsewhere, even when two phones couple it at once', async () => {
    const [one, two, trailer] = [await add('tractor'), await add('tractor'), await add('trailer')];
    const answers = await Promise.all([
      couple([one.id, trailer.id]),
      couple([two.id, trailer.id], staff.lead),
    ]);
    expect(answers.map((answer) => answer.status).sort()).toEqual([201, 409]);
    const refused = answers.find((answer) => answer.status === 409);
    expect(refused?.body).toMatchObject({
      code: 'coupled-already',
      fields: [{ field: 'unitIds', message: 'A unit is coupled in one rig at a time.' }],
    });
  });

  it('is refused in an order that cannot be, and with units of nobody or of another shop', async () => {
    const [tractor, trailer] = [await add('tractor'), await add('trailer')];
    const wrong = await couple([trailer.id, tractor.id]).expect(422);
    expect(wrong.body).toMatchObject({ code: 'not-right', fields: [{ field: 'unitIds.0' }, {}] });
    await couple([tractor.id, uuidv7()]).expect(404);
    await couple([tractor.id, (await add('trailer', others.lead)).id]).expect(404);
    await couple([tractor.id, tractor.id]).expect(422);
    await couple([tractor.id]).expect(422);
  });

  it('is no viewer’s to couple, and another shop’s to neither see nor uncouple', async () => {
    const ids = [(await add('truck')).id, (await add('trailer')).id];
    await couple(ids, staff.viewer).expect(403);
    const rig = (await couple(ids).expect(201)).body as Rig;
    await staff.viewer.post(`/api/rigs/${rig.id}/uncouple`).send({ revision: 1 }).expect(403);
    await others.lead.post(`/api/rigs/${rig.id}/uncouple`).send({ revision: 1 }).expect(404);
    expect((await others.lead.get('/api/rigs')).body).toEqual([]);
  });
});

describe('a run of a rig', () => {
  it('is a run of each of its units, with the whole rig as it was', async () => {
    const tractor = await add('tractor');
    const trailer = await add('trailer');
    const base = runHeader(tractor);
    const on = { unit: tractor, towed: [trailer], ruleSet: roadTest, leftOut: ['drain'] };
    const rigId = uuidv7();
    const unitIds = [tractor.id, trailer.id];
    await staff.technician.post('/api/rigs').send({ id: rigId, unitIds }).expect(201);
    const header = { ...base, subject: { ...base.subject, rigId }, made: runMade(on) };
    await staff.technician.post('/api/logs').send(header).expect(201);
    for (const unit of [tractor, trailer]) {
      const rows = (await staff.viewer.get(`/api/units/${unit.id}/runs`)).body as RunRow[];
      expect(rows).toMatchObject([
        { id: header.id, rigTitle: `tractor ${tractor.number} + trailer ${trailer.number}` },
      ]);
    }
    const yard = (await staff.viewer.get('/api/yard')).body as YardRow[];
    const open = yard.filter((row) => row.open?.runId === header.id).map((row) => row.unit.id);
    expect(open.sort()).toEqual([tractor.id, trailer.id].sort());
    const record = (await staff.viewer.get(`/api/logs/${header.id}`)).body as LogRecord<'run'>;
    expect(record.header.made).toMatchObject({ towed: [trailer], ruleSet: roadTest });
    const facts = laneOf([[100, { kind: 'close', how: 'incomplete', reason: 'Called away' }]]);
    await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts }).expect(200);
    const after = (await staff.viewer.get('/api/yard')).body as YardRow[];
    const trailerRow = after.find((row) => row.unit.id === trailer.id);
    expect(trailerRow).toMatchObject({ open: null, last: { verdict: 'incomplete' } });
  });

  it('tells of another run of the same unit in the same stretch of time, and keeps both', async () => {
    const truck = await add('truck');
    const header = (startedAtMs: number) => ({ ...runHeader(truck), startedAtMs });
    const first = header(1_760_000_000_000);
    const second = header(1_760_000_060_000);
    await staff.technician.post('/api/logs').send(first).expect(201);
    await staff.lead.post('/api/logs').send(second).expect(201);
    const record = (await staff.viewer.get(`/api/logs/${first.id}`)).body as LogRecord<'run'>;
    expect(record.overlapping).toMatchObject([{ logId: second.id, by: 'lead' }]);
  });
});
