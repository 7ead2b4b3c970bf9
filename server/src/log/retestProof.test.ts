import type { JobRow, Unit, VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, JOB_VERSION, newUnitDraft, runMade, VISIT_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { failedTrucks, retested } from '../test/failedTrucks';
import {
  addUnit,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  type Agent,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'retest-proof');
});
afterAll(() => shop.close());
const { ran, failedTruck } = failedTrucks(() => staff);

const LATER_MS = 60_000;
const blocksOf = async (jobId: string) =>
  ((await staff.viewer.get(`/api/jobs/${jobId}/blocks`).expect(200)).body as { blocks: string[] })
    .blocks;
const rowOf = async (jobId: string) =>
  ((await staff.viewer.get('/api/jobs')).body as JobRow[]).find(({ id }) => id === jobId);

/** A visit of a unit with some checks in it, each at its own moment. */
async function visited(
  unit: Unit,
  checks: readonly {
    atMs: number;
    offsetMs?: null;
    partId: string;
    checkId: string;
    answer: object;
  }[],
  { takesBack = false } = {},
) {
  const header: VisitHeader = {
    id: uuidv7(),
    kind: 'visit',
    v: VISIT_VERSION,
    subject: { unitId: unit.id, rigId: null, partId: null },
    startedAtMs: Date.now(),
    offsetMs: 0,
    coreVersion: CORE_VERSION,
    made: { units: [unit], reason: null },
  };
  await staff.technician.post('/api/logs').send(header).expect(201);
  const lane = uuidv7();
  const facts = checks.map(({ atMs, offsetMs = 0, partId, checkId, answer }, n) => ({
    ...{ id: uuidv7(), lane, seq: n + 1, atMs, offsetMs, v: VISIT_VERSION, kind: 'check' },
    ...{ at: { unitId: unit.id, partId }, checkId, title: checkId, answer, said: 'as answered' },
  }));
  const back = takesBack
    ? [
        {
          ...{ id: uuidv7(), lane, seq: facts.length + 1, atMs: Date.now() + 2 * LATER_MS },
          ...{ offsetMs: 0, v: VISIT_VERSION, kind: 'retract', target: facts.at(-1)!.id },
        },
      ]
    : [];
  await staff.technician
    .post(`/api/logs/${header.id}/facts`)
    .send({ facts: [...facts, ...back] })
    .expect(200);
  return { logId: header.id, factId: facts.at(-1)!.id };
}

/** A truck whose rear left chamber was changed, with all but its stroke retested. */
async function changedChamber() {
  const job = await failedTruck();
  const at = { unitId: job.unit.id, partId: 'rear-chambers.1-left' };
  await job.told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
  const now = (await staff.viewer.get(`/api/units/${job.unit.id}`)).body as Unit;
  const stroke = (mm: number, more: object = {}) => ({
    ...{ atMs: Date.now() + LATER_MS, partId: 'rear-chambers' },
    ...{ checkId: '0/look/rear left/stroke', answer: { kind: 'number', value: mm } },
    ...more,
  });
  const of = (blocks: readonly string[]) => blocks.filter((each) => each.startsWith('Pushrod'));
  return { ...job, now, stroke, of, owedId: 'check:0/rear-chambers.1-left/stroke' };
}

describe('a retest by checks', () => {
  it('is judged by the server from the answer and the rig: a phone’s verdict is not taken', async () => {
    const { header, told, now, stroke, of, owedId } = await changedChamber();
    // A type 30 may come out 50.8 mm [49 CFR 393.47(e), value from memory].
    const long = await visited(now, [stroke(55)]);
    await told(retested(owedId, long.logId, { factId: long.factId }));
    expect(of(await blocksOf(header.id))).toEqual([
      expect.stringContaining('the record says otherwise'),
    ]);
    const good = await visited(now, [stroke(40)]);
    await told(retested(owedId, good.logId, { factId: good.factId }));
    expect(of(await blocksOf(header.id))).toEqual([]);
  });

  it('is not one of another part, nor one that was taken back', async () => {
    const { header, told, now, stroke, of, owedId } = await changedChamber();
    const other = await visited(now, [
      stroke(30, { partId: 'front-chambers', checkId: '0/look/front left/stroke' }),
    ]);
    await told(retested(owedId, other.logId, { factId: other.factId }));
    expect(of(await blocksOf(header.id))).toEqual([
      expect.stringContaining('that check is of something else'),
    ]);
    const gone = await visited(now, [stroke(40)], { takesBack: true });
    await told(retested(owedId, gone.logId, { factId: gone.factId }));
    expect(of(await blocksOf(header.id))).toEqual([expect.stringContaining('has not come yet')]);
  });

  it('is not one by a clock that was never compared', async () => {
    const { header, told, now, stroke, of, owedId } = await changedChamber();
    const when = await visited(now, [stroke(40, { offsetMs: null })]);
    await told(retested(owedId, when.logId, { factId: when.factId }));
    expect(of(await blocksOf(header.id))).toEqual([
      expect.stringContaining('its device’s clock was never compared'),
    ]);
  });
});

describe('a retest by a run', () => {
  it('of the towing unit alone proves nothing of a trailer that was worked on', async () => {
    const { unit, header: made } = await failedTruck();
    const draft = { ...newUnitDraft('trailer', 2015), name: 'Low-loader', number: '944' };
    const trailer = await addUnit(staff.lead, draft);
    const header = {
      ...{ ...made, id: uuidv7() },
      made: {
        ...{ ...made.made, units: [unit, trailer], foundOn: [unit.id, trailer.id] },
        ...{ bornOf: { kind: 'hand' }, failures: [] },
      },
    };
    await staff.technician.post('/api/logs').send(header).expect(201);
    const alone = await ran(unit, 1, { startMs: Date.now() + LATER_MS, retestOf: [header.id] });
    const at = { unitId: trailer.id, partId: 'relay' };
    const lane = uuidv7();
    const facts = [
      { kind: 'fitted', at, repair: 'replaced', was: {}, now: {} },
      retested('step:static-hold', alone, { testedAtMs: Date.now() + LATER_MS }),
    ].map((fact, n) => ({
      ...{ id: uuidv7(), lane, seq: n + 1, atMs: Date.now(), offsetMs: 0, v: JOB_VERSION },
      ...fact,
    }));
    await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts }).expect(200);
    expect(await blocksOf(header.id)).toContainEqual(
      expect.stringContaining('made without a unit that was worked on'),
    );
  });
});

describe('work after work', () => {
  it('owes anew what it touches and what the job is to close', async () => {
    const { header, told, at, unit } = await failedTruck();
    const lamp = { unitId: unit.id, partId: 'stop-lamp-switch' };
    const start = Date.now();
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {}, atMs: start - 400_000 });
    const first = await ran(unit, 1, { startMs: start - 300_000, retestOf: [header.id] });
    await told({ ...retested('step:static-hold', first), atMs: start - 100_000 });
    await told({
      kind: 'fitted',
      at: lamp,
      repair: 'replaced',
      was: {},
      now: {},
      atMs: start - 90_000,
    });
    const owed = (await rowOf(header.id))?.owed.map(({ id }) => id);
    // The hold that the job is to close is tested after all of its work.
    expect(owed).toEqual(['step:static-hold', 'step:stop-lamp']);
    const lit = await lampRun(unit, header.id, start - 60_000);
    await told({ ...retested('step:stop-lamp', lit), atMs: start - 30_000 });
    const again = await ran(unit, 1, { startMs: start - 20_000, retestOf: [header.id] });
    await told(retested('step:static-hold', again));
    expect(await blocksOf(header.id)).toEqual([]);
    await told({ kind: 'ask-release' }, staff.lead);
    expect(await rowOf(header.id)).toMatchObject({ released: true });
  });

  it('is one rule for job and server, whatever order two phones send in', async () => {
    const { header, at, unit } = await failedTruck();
    const lamp = { unitId: unit.id, partId: 'stop-lamp-switch' };
    const start = Date.now();
    const hour = 3_600_000;
    // One phone is an hour fast and knows it, the other two hours slow.
    const phone = (by: Agent, offsetMs: number) => {
      const lane = uuidv7();
      let seq = 0;
      return (atMs: number, fact: object) => ({
        by,
        fact: {
          ...{ id: uuidv7(), lane, seq: (seq += 1), atMs: atMs + offsetMs, offsetMs },
          ...{ v: JOB_VERSION, ...fact },
        },
      });
    };
    const [fast, slow] = [phone(staff.technician, hour), phone(staff.lead, -2 * hour)];
    const hold = await ran(unit, 1, { startMs: start - 300_000, retestOf: [header.id] });
    // Its retest passed before the drain was even fitted: that is other work.
    const lit = await lampRun(unit, header.id, start - 450_000);
    const told = [
      fast(start - 500_000, { kind: 'fitted', at: lamp, repair: 'replaced', was: {}, now: {} }),
      slow(start - 400_000, { kind: 'fitted', at, repair: 'replaced', was: {}, now: {} }),
      fast(start - 200_000, { ...retested('step:static-hold', hold), testedAtMs: start - 300_000 }),
      slow(start - 50_000, { ...retested('step:stop-lamp', lit), testedAtMs: start - 450_000 }),
    ];
    const send = ({ by, fact }: (typeof told)[number]) =>
      by
        .post(`/api/logs/${header.id}/facts`)
        .send({ facts: [fact] })
        .expect(200);
    // The later phone sends first, each in its own order.
    for (const each of [told[1]!, told[3]!, told[0]!, told[2]!]) await send(each);
    expect(await rowOf(header.id)).toMatchObject({ station: 'release', owed: [] });
    expect(await blocksOf(header.id)).toEqual([]);
  });
});

/** A run that retests the stop lamps alone. */
async function lampRun(unit: Unit, jobId: string, startMs: number): Promise<string> {
  const plain = runHeader(unit);
  const leftOut = plain.made.ruleSet.steps
    .map(({ stepId }) => stepId)
    .filter((stepId) => stepId !== 'prepare');
  const on = { ...plain.made, leftOut, also: ['stop-lamp'], retestOf: [jobId] };
  const header = { ...plain, startedAtMs: startMs, made: runMade(on) };
  await staff.technician.post('/api/logs').send(header).expect(201);
  const facts = laneOf(
    [
      [0, { kind: 'look', stepId: 'prepare', answers: { 'abs-lamp': 'on-off' } }],
      [1, { kind: 'ready', stepId: 'prepare', gauge: 'primary' }],
      [
        9,
        {
          ...{ kind: 'mark', stepId: 'stop-lamp', key: 'on', readingPsi: 4 },
          ...{ resolutionPsi: 1, method: 'read' },
        },
      ],
      [12, { kind: 'close', how: 'complete' }],
    ],
    { startMs },
  );
  await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts }).expect(200);
  return header.id;
}
