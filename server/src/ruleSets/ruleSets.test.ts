import type { AuditPage, LogRecord, RuleSet, RuleSetList, Unit } from '@keen-bleed/contract';
import { inService, roadTest, runMade } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import shippedBefore from './shippedBefore.json' with { type: 'json' };
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  shortRuleSet,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let others: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'e');
  others = await makeStaff(shop, 'f');
});
afterAll(() => shop.close());

const draftOf = ({ id: _id, revision: _r, basedOn: _b, ...draft }: RuleSet) => draft;
const list = async (agent = staff.viewer) =>
  (await agent.get('/api/rule-sets').expect(200)).body as RuleSetList;
const copy = (agent = staff.lead, draft = draftOf(roadTest)) =>
  agent.post('/api/rule-sets').send({ id: uuidv7(), basedOn: 'road-test', draft });

describe('rule sets', () => {
  it('that ship are there for every shop, each limit with its source', async () => {
    const { sets, defaultId } = await list();
    expect(sets.map((set) => set.id)).toEqual(
      expect.arrayContaining(['road-test', 'in-service', 'makers-figures', 'numbered-ports']),
    );
    expect(defaultId).toBe('road-test');
    for (const set of sets) for (const limit of set.limits) expect(limit.source).toBeTruthy();
  });

  it('are copied and changed by a lead, revision by revision', async () => {
    const made = (await copy().expect(201)).body as RuleSet;
    expect(made).toMatchObject({ basedOn: 'road-test', revision: 1 });
    const draft = { ...draftOf(made), title: 'Ours', steps: [...made.steps].slice(0, 8) };
    const put = (revision: number) =>
      staff.lead.put(`/api/rule-sets/${made.id}`).send({ revision, draft });
    expect((await put(1).expect(200)).body).toMatchObject({ title: 'Ours', revision: 2 });
    const trail = (await staff.lead.get('/api/audit').expect(200)).body as AuditPage;
    expect(trail.rows.find(({ what }) => what === 'rule-set')?.about).toBe('Ours, revision 2');
    expect((await put(1).expect(409)).body).toMatchObject({ code: 'changed-meanwhile' });
  });

  it('are refused where they cannot be walked, naming the field', async () => {
    const twice = await copy(staff.lead, {
      ...draftOf(roadTest),
      steps: [...roadTest.steps, { stepId: 'warning', need: 'must' }],
    }).expect(422);
    expect(twice.body).toMatchObject({ code: 'not-right' });
    const nowhere = await staff.lead
      .post('/api/rule-sets')
      .send({ id: uuidv7(), basedOn: 'nothing', draft: draftOf(roadTest) })
      .expect(422);
    expect(nowhere.body).toMatchObject({ fields: [{ field: 'basedOn' }] });
    await staff.lead
      .post('/api/rule-sets')
      .send({ id: uuidv7(), basedOn: 'road-test', draft: { title: 'x' } })
      .expect(422);
  });

  it('that ship are nobody’s to change, and none are a technician’s or a viewer’s', async () => {
    await staff.lead
      .put('/api/rule-sets/road-test')
      .send({ revision: 1, draft: draftOf(roadTest) })
      .expect(404);
    await copy(staff.technician).expect(403);
    await copy(staff.viewer).expect(403);
    await staff.technician
      .put('/api/rule-sets/default')
      .send({ ruleSetId: 'in-service' })
      .expect(403);
    await staff.technician
      .put(`/api/rule-sets/${shortRuleSet.id}`)
      .send({ revision: 1, draft: draftOf(shortRuleSet) })
      .expect(403);
  });

  it('of one shop are neither seen, chosen nor run by in another', async () => {
    const made = (await copy().expect(201)).body as RuleSet;
    expect((await list(others.lead)).sets.some((set) => set.id === made.id)).toBe(false);
    await others.lead.put('/api/rule-sets/default').send({ ruleSetId: made.id }).expect(404);
    await others.lead
      .put(`/api/rule-sets/${made.id}`)
      .send({ revision: 1, draft: draftOf(made) })
      .expect(404);
    const unit = await addTruck(others.lead, '1');
    await others.technician.post('/api/logs').send(runBy(unit, made)).expect(422);
  });

  it('are chosen by a lead for the whole shop', async () => {
    await staff.lead.put('/api/rule-sets/default').send({ ruleSetId: inService.id }).expect(200);
    expect((await list()).defaultId).toBe('in-service');
    expect((await list(others.viewer)).defaultId).toBe('road-test');
  });
});

const runBy = (unit: Unit, ruleSet: RuleSet) => ({
  ...runHeader(unit),
  made: runMade({ unit, towed: [], ruleSet, leftOut: ['drain'] }),
});

describe('a run and its rule set', () => {
  it('keeps the one it was started under, whatever becomes of it later', async () => {
    const made = (await copy(staff.lead, draftOf(shortRuleSet)).expect(201)).body as RuleSet;
    const unit = await addTruck(staff.lead, '1');
    const header = runBy(unit, made);
    await staff.technician.post('/api/logs').send(header).expect(201);
    const limits = made.limits.map((limit) =>
      limit.figure === 'cut-out' ? { ...limit, max: 125 } : limit,
    );
    await staff.lead
      .put(`/api/rule-sets/${made.id}`)
      .send({ revision: 1, draft: { ...draftOf(made), limits } })
      .expect(200);
    const record = (await staff.viewer.get(`/api/logs/${header.id}`)).body as LogRecord<'run'>;
    expect(record.header.made.ruleSet).toEqual(made);
    // A phone that was without network may still start one under the older revision it had.
    const late = { ...header, id: uuidv7() };
    await staff.technician.post('/api/logs').send(late).expect(201);
  });

  it('is not taken with limits a phone made up, whatever revision it claims them to be of', async () => {
    const unit = await addTruck(staff.lead, '2');
    const made = (await copy(staff.lead, draftOf(shortRuleSet)).expect(201)).body as RuleSet;
    const edited = { ...draftOf(made), title: 'Edited' };
    await staff.lead
      .put(`/api/rule-sets/${made.id}`)
      .send({ revision: 1, draft: edited })
      .expect(200);
    const limits = made.limits.map((limit) => ({ ...limit, max: 4_000 }));
    for (const revision of [1, 2]) {
      const answer = await staff.technician
        .post('/api/logs')
        .send(runBy(unit, { ...made, revision, limits }))
        .expect(422);
      expect(answer.body).toMatchObject({ fields: [{ field: 'made.ruleSet' }] });
      expect((answer.body as { message: string }).message).toContain('not as the shop kept it');
    }
    // The same by meaning is the same, whatever the order of its fields.
    const reordered = Object.fromEntries(Object.entries(made).reverse()) as unknown as RuleSet;
    await staff.technician.post('/api/logs').send(runBy(unit, reordered)).expect(201);
  });

  it('may be by an earlier revision of what ships, as that was, and by none that never was', async () => {
    const unit = await addTruck(staff.lead, '3');
    for (const earlier of shippedBefore as unknown as RuleSet[]) {
      const now = (await list()).sets.find(({ id }) => id === earlier.id);
      expect(now?.revision).toBeGreaterThan(earlier.revision);
      const header = runBy(unit, earlier);
      await staff.technician.post('/api/logs').send(header).expect(201);
      const record = (await staff.viewer.get(`/api/logs/${header.id}`)).body as LogRecord<'run'>;
      expect(record.header.made.ruleSet).toEqual(earlier);
      // Neither that revision with the words of now, nor one of before.
      for (const wrong of [
        { ...now!, revision: earlier.revision },
        { ...earlier, revision: 0 },
        { ...earlier, revision: now!.revision + 1 },
      ]) {
        await staff.technician.post('/api/logs').send(runBy(unit, wrong)).expect(422);
      }
    }
  });
});
