import type { LogRecord, RunFact, RunHeader } from '@keen-bleed/contract';
import { v7 as uuidv7 } from 'uuid';
import {
  addTruck,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  signedInAgent,
  STARTED_MS,
  testPassword,
  wholeRun,
  type Agent,
  type Refusal,
  type Said,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let others: Staff;
/** Another technician of the same shop. */
let joss: Agent;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'a');
  others = await makeStaff(shop, 'b');
  await staff.lead
    .post('/api/people')
    .send({
      id: uuidv7(),
      name: 'Joss',
      signInName: 'joss',
      role: 'technician',
      password: testPassword,
    })
    .expect(201);
  joss = await signedInAgent(shop.app, 'joss');
});
afterAll(() => shop.close());

let number = 0;

/** A run the technician has begun: ready, and the first mark of the build-up. */
async function begun(): Promise<{ header: RunHeader; first: RunFact[] }> {
  const header = runHeader(await addTruck(staff.lead, String((number += 1))));
  await staff.technician.post('/api/logs').send(header).expect(201);
  const first = wholeRun().slice(0, 2);
  await add(staff.technician, header, first).expect(200);
  return { header, first };
}

const add = (by: Agent, { id }: RunHeader, facts: readonly RunFact[]) =>
  by.post(`/api/logs/${id}/facts`).send({ facts });

/** A lane that takes the run over, knowing of another, and goes on. */
function going(first: readonly RunFact[], said: readonly [number, Said][] = []): RunFact[] {
  const lane = first[0]?.lane ?? '';
  return laneOf([[60, { kind: 'take-over', knew: { [lane]: first.length } }], ...said], {
    startMs: STARTED_MS,
  });
}

const stop: [number, Said] = [5, { kind: 'close', how: 'incomplete', reason: 'Phone lost' }];
const record = async ({ id }: RunHeader) =>
  (await staff.viewer.get(`/api/logs/${id}`).expect(200)).body as LogRecord<'run'>;

describe('taking a run over', () => {
  it('is its opener’s on another device, and a lead’s, and closes it from there', async () => {
    for (const by of [staff.technician, staff.lead]) {
      const { header, first } = await begun();
      await add(by, header, going(first, [stop])).expect(200);
      expect((await record(header)).closedAtMs).toBe(STARTED_MS + 65_000);
    }
  });

  it('is not another technician’s, a viewer’s, or another shop’s', async () => {
    const { header, first } = await begun();
    await add(joss, header, going(first)).expect(403);
    await add(staff.viewer, header, going(first)).expect(403);
    await add(others.lead, header, going(first)).expect(404);
    expect((await record(header)).facts).toHaveLength(2);
  });

  it('is said first: a lead who has not taken it over adds nothing to it', async () => {
    const { header } = await begun();
    const answer = await add(staff.lead, header, laneOf([stop])).expect(403);
    expect((answer.body as Refusal).message).toContain('take it over');
  });

  it('is said before anything else in its lane, not after', async () => {
    const { header, first } = await begun();
    const after = laneOf([
      [60, { kind: 'skip', stepId: 'cut-in', reason: 'x' }],
      [5, { kind: 'take-over', knew: { [first[0]?.lane ?? '']: 2 } }],
    ]);
    await add(staff.lead, header, after).expect(403);
    expect((await record(header)).facts).toHaveLength(2);
  });

  it('does not open a closed run again, whoever says so and whatever they knew', async () => {
    const { header, first } = await begun();
    await add(staff.lead, header, going(first, [stop])).expect(200);
    const lane = first[0]?.lane ?? '';
    const [back] = laneOf([[70, { kind: 'take-over', knew: {} }]], { lane });
    const answer = await add(staff.technician, header, [{ ...back, seq: 3 } as RunFact]);
    expect(answer.status).toBe(409);
    expect((await record(header)).closedAtMs).toBe(STARTED_MS + 65_000);
  });

  it('goes on in its lane, request after request, and in no other', async () => {
    const { header, first } = await begun();
    const [taken, ...later] = going(first, [
      [5, { kind: 'skip', stepId: 'cut-in', reason: 'x' }],
      stop,
    ]);
    await add(staff.lead, header, [taken!]).expect(200);
    const elsewhere = laneOf([[70, { kind: 'skip', stepId: 'cut-in', reason: 'x' }]]);
    await add(staff.lead, header, elsewhere).expect(403);
    for (const fact of later) await add(staff.lead, header, [fact]).expect(200);
    expect((await record(header)).closedAtMs).toBe(STARTED_MS + 70_000);
  });

  it('loses nothing of what the first device still sends, and counts none of it', async () => {
    const { header, first } = await begun();
    const late = wholeRun()
      .slice(2, 4)
      .map((fact, i) => ({ ...fact, lane: first[0]?.lane ?? '', seq: 3 + i }));
    await add(staff.lead, header, going(first, [stop])).expect(200);
    await add(staff.technician, header, late as RunFact[]).expect(200);
    const kept = await record(header);
    expect(kept.facts).toHaveLength(6);
    expect(kept.closedAtMs).toBe(STARTED_MS + 65_000);
    const json = await staff.viewer.get(`/api/runs/${header.id}/export.json`).expect(200);
    expect(json.body).toMatchObject({ by: 'technician, taken over by lead' });
    const csv = await staff.viewer.get(`/api/runs/${header.id}/export.csv`).expect(200);
    const states = csv.text
      .trim()
      .split('\n')
      .slice(1)
      .map((line) => line.trim().split(',').at(-1));
    expect(states).toEqual(['stands', 'not counted', 'not counted']);
  });

  it('lets a lead take back what the first person marked, once it is theirs to go on with', async () => {
    const { header, first } = await begun();
    const undo: [number, Said] = [5, { kind: 'retract', target: first[1]?.id }];
    await add(staff.lead, header, going(first, [undo])).expect(200);
    expect((await record(header)).facts).toHaveLength(4);
  });
});

describe('a note on a run', () => {
  const note = () => laneOf([[90, { kind: 'note', text: 'Hose found off later' }]]);

  it('is added to a closed one by anybody who may record, and shows in its outcome', async () => {
    const { header, first } = await begun();
    await add(staff.lead, header, going(first, [stop])).expect(200);
    for (const by of [staff.technician, joss, staff.lead]) {
      await add(by, header, note()).expect(200);
    }
    await add(staff.viewer, header, note()).expect(403);
    await add(others.lead, header, note()).expect(404);
    const answer = await staff.viewer.get(`/api/runs/${header.id}/export.json`).expect(200);
    const { outcome } = answer.body as { outcome: { verdict: string; notes: unknown[] } };
    expect(outcome.verdict).toBe('incomplete');
    expect(outcome.notes).toHaveLength(3);
    expect(outcome.notes[0]).toEqual({
      stepId: null,
      title: 'On the run',
      text: 'Hose found off later',
    });
  });
});
