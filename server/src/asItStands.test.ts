import type { JobHeader, RunFact, Unit, VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, JOB_VERSION, newUnitDraft, VISIT_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import type { Route } from './http/route';
import {
  addTruck,
  addUnit,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  STARTED_MS,
  wholeRun,
  type Agent,
  type Staff,
  type TestShop,
} from './test/testShop';

/*
 * What every route that reads answers of a small shop with a bit of everything in it, to each role: no proof that it is
 * right, but no query, no field and no right changes unseen. Ids, seals and the present are left out of it.
 */
let shop: TestShop;
let staff: Staff;
let ids: Record<string, readonly string[]>;

const STEP_MS = 86_400_000;
/** Facts moved to a later day. */
const later = (facts: RunFact[], days: number): RunFact[] =>
  facts.map((fact) => ({ ...fact, atMs: fact.atMs + days * STEP_MS }));

async function ran(unit: Unit, lossPsi: number, days = 0, towed: Unit[] = []): Promise<string> {
  const header = { ...runHeader(unit, towed), startedAtMs: STARTED_MS + days * STEP_MS };
  await staff.technician.post('/api/logs').send(header).expect(201);
  const facts = later(wholeRun(lossPsi), days);
  await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts }).expect(200);
  return header.id;
}

async function opened(header: object, facts: object[], by: Agent = staff.technician) {
  const { id, startedAtMs } = header as { id: string; startedAtMs: number };
  await by.post('/api/logs').send(header).expect(201);
  const said = laneOf(
    facts.map((fact) => [60, fact as never]),
    { startMs: startedAtMs },
  );
  const answer = await by
    .post(`/api/logs/${id}/facts`)
    .send({ facts: said.map((fact) => ({ ...fact, v: VISIT_VERSION })) });
  expect([answer.status, answer.text]).toEqual([200, expect.anything()]);
}

beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'stands');
  const [one, two] = [await addTruck(staff.lead, '1'), await addTruck(staff.lead, '2')];
  const trailer = await addUnit(staff.lead, {
    ...newUnitDraft('trailer', 2015),
    ...{ number: '3', name: 'Trailer' },
  });
  const gone = await addTruck(staff.lead, '4');
  await staff.lead.post(`/api/units/${gone.id}/retire`).send({ retired: true }).expect(200);
  await staff.lead
    .put(`/api/units/${two.id}`)
    .send({
      draft: { ...newUnitDraft('truck', 2016), number: '2', name: 'Gritter', testEveryDays: 30 },
      revision: 1,
    })
    .expect(200);
  const changed = (await staff.lead.get(`/api/units/${two.id}`)).body as { unit?: Unit } & Unit;
  const gritter = changed.unit ?? changed;
  await staff.technician
    .post('/api/rigs')
    .send({ id: uuidv7(), unitIds: [gritter.id, trailer.id] })
    .expect(201);
  const runs = [
    await ran(one, 6),
    await ran(one, 1, 1),
    await ran(gritter, 6, 2, [trailer]),
    await ran(gritter, 7, 3),
  ];
  await staff.lead
    .post('/api/failures/close')
    .send({ runId: runs[3], key: 'figure:static-leak', reason: 'The gauge was being changed' })
    .expect(200);
  const visit: VisitHeader = {
    ...{ id: uuidv7(), kind: 'visit', v: VISIT_VERSION, offsetMs: 0, coreVersion: CORE_VERSION },
    ...{ subject: { unitId: one.id, rigId: null, partId: null }, startedAtMs: STARTED_MS + 9_000 },
    made: { units: [one], reason: 'Loses air overnight' },
  };
  const at = { unitId: one.id, partId: 'rear-relay' };
  await opened(visit, [
    { kind: 'note', at: null, text: 'Parked on the slope' },
    { kind: 'seen', at, standing: 'bad', text: 'Hiss at the exhaust' },
    { kind: 'seen', at, standing: 'good', text: 'Bracket' },
    { kind: 'complaint', complaintId: 'blows', text: 'Air blows at a valve', unitId: one.id },
    { kind: 'part', at, standing: 'fitted', setPsi: 4, note: 'looked at' },
    { kind: 'close' },
  ]);
  const job: JobHeader = {
    ...{ id: uuidv7(), kind: 'job', v: JOB_VERSION, offsetMs: 0, coreVersion: CORE_VERSION },
    ...{ subject: { unitId: gritter.id, rigId: null, partId: null } },
    startedAtMs: STARTED_MS + 4 * STEP_MS,
    made: {
      ...{ units: [gritter], foundOn: [gritter.id], bornOf: { kind: 'hand' } },
      ...{ found: 'Loses air', failures: [], suspected: null },
    },
  };
  const relay = { unitId: gritter.id, partId: 'rear-relay' };
  await opened(job, [
    { kind: 'proven', at: relay, text: 'does not let go', by: 'Curve' },
    { kind: 'chosen', at: relay, repair: 'replaced', offered: { setPsi: 4 } },
    { kind: 'waiting', text: 'a relay' },
    { kind: 'owner', personId: staff.ids.technician, name: 'technician' },
  ]);
  const open = runHeader(one);
  await staff.technician.post('/api/logs').send(open).expect(201);
  ids = {
    units: [one.id, gritter.id, trailer.id, gone.id],
    logs: [runs[0]!, visit.id, job.id],
    ...{ runs, visits: [visit.id], jobs: [job.id] },
  };
}, 120_000);
afterAll(() => shop.close());

/** Without what differs from one time to the next. */
function told(text: string): string {
  const known = new Map<string, string>();
  const name = (id: string) => known.get(id) ?? known.set(id, `#${known.size + 1}`).get(id)!;
  const fresh = Date.now() - 3 * STEP_MS;
  return (
    text
      .replace(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g, name)
      .replace(/[0-9a-f]{64}/g, 'seal')
      .replace(/\b1[0-9]{12}\b/g, (ms) => (Number(ms) > fresh ? 'now' : ms))
      .replace(/20\d\d-\d\d-\d\dT[\d:.]+Z/g, (at) => (Date.parse(at) > fresh ? 'now' : at))
      .replace(/"bytes":\d+/g, '"bytes":n')
      .replace(/DTSTAMP:\w+/g, 'DTSTAMP')
      // What is overdue is due on the day these tests run.
      .replace(/(DTSTART;VALUE=DATE):\d+/g, '$1')
  );
}

/** Of the asking itself, of the machine, or as long as a book: each has a test of its own. */
const NOT_HERE = [
  '/me/sessions',
  '/audit',
  '/openapi.json',
  '/openapi',
  '/export.jsonl',
  '/rule-sets',
];

it('is this, route by route', async () => {
  const { routes } = shop.app.locals as { routes: Route[] };
  const reads = routes.filter(
    ({ method, path, answers }) =>
      method === 'get' &&
      !NOT_HERE.includes(path) &&
      (typeof answers !== 'string' || /\.(json|jsonl|csv|ics)$/.test(path)),
  );
  const lines: string[] = [];
  for (const { path } of reads) {
    const first = path.split('/')[1] ?? '';
    for (const id of path.includes(':') ? (ids[first] ?? []) : ['']) {
      const at = `/api${path.replace(/:\w+/, id)}`;
      for (const role of ['lead', 'technician', 'viewer'] as const) {
        const answer = await staff[role].get(at).buffer();
        const text = `${answer.status} ${told(answer.text)}`;
        const where = told(at).replace('#1', `${first} ${ids[first]?.indexOf(id) ?? ''}`);
        // Most answers are alike for everybody: they are written down once.
        if (role === 'lead') lines.push(`${where}: ${text}`);
        else if (!lines.at(-1)?.endsWith(text)) lines.push(`${where} as ${role}: ${text}`);
      }
    }
  }
  expect(lines.length).toBeGreaterThan(40);
  expect(lines.join('\n')).toMatchSnapshot();
}, 120_000);
