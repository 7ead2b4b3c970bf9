import type { LogRecord, LogRow, RunFact, YardRow } from '@keen-bleed/contract';
import { roadTest, runMade } from '@keen-bleed/core';
import fc from 'fast-check';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import {
  addTruck,
  laneOf,
  makeStaff,
  openTestShop,
  runHeader,
  STARTED_MS,
  truckDraft,
  unreceived,
  wholeRun,
  type Agent,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let others: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'r');
  others = await makeStaff(shop, 's');
});
afterAll(() => shop.close());

let number = 100;
async function openedRun(agent = staff.technician) {
  const unit = await addTruck(staff.lead, String((number += 1)));
  const header = runHeader(unit);
  await agent.post('/api/logs').send(header).expect(201);
  const send = (facts: readonly object[], by = agent) =>
    by.post(`/api/logs/${header.id}/facts`).send({ facts });
  const record = async () =>
    (await staff.viewer.get(`/api/logs/${header.id}`).expect(200)).body as LogRecord<'run'>;
  const yardRow = async () =>
    ((await staff.viewer.get('/api/yard')).body as YardRow[]).find(
      (each) => each.unit.id === unit.id,
    );
  return { unit, header, send, record, yardRow };
}

describe('a run', () => {
  it('is kept mark by mark, judged at its closing, and found again in the yard', async () => {
    const { unit, send, record, header, yardRow } = await openedRun();
    for (const fact of wholeRun(1)) await send([fact]).expect(200);
    const kept = await record();
    expect(kept).toMatchObject({ by: 'technician', timeUnsure: false });
    const row = await yardRow();
    expect(row?.last).toMatchObject({ runId: header.id, verdict: 'pass', decisive: null });
    expect(row?.leakTrendPsiPerMin).toHaveLength(1);
    expect(row?.leakTrendPsiPerMin[0]).toBeCloseTo(1, 1);
    expect(row?.lastCompleteAtMs).toBe(kept.closedAtMs);
    expect(unit.id).toBe(kept.header.subject.unitId);
  });

  it('shows as open in the yard and among the work until it is closed, and does not count as tested', async () => {
    const { header, send, yardRow } = await openedRun();
    await send(wholeRun().slice(0, 4)).expect(200);
    expect(await yardRow()).toMatchObject({
      last: null,
      lastCompleteAtMs: null,
      open: { by: 'technician' },
    });
    const open = async (by: Agent) => (await by.get('/api/logs/open').expect(200)).body as LogRow[];
    expect((await open(staff.viewer)).find(({ id }) => id === header.id)).toMatchObject({
      kind: 'run',
      by: 'technician',
      facts: 4,
    });
    expect(await open(others.lead)).toEqual([]);
  });

  it('carries the figure that failed, for lists', async () => {
    const { unit, send } = await openedRun();
    await send(wholeRun(6)).expect(200);
    const runs = await staff.viewer.get(`/api/units/${unit.id}/runs`).expect(200);
    expect(runs.body).toMatchObject([
      { verdict: 'fail', decisive: { id: 'static-leak', read: 6 } },
    ]);
  });

  it('is on no rig of another shop', async () => {
    const unit = await addTruck(staff.lead, String((number += 1)));
    const header = runHeader(unit);
    const other = { ...header, subject: { ...header.subject, rigId: uuidv7() } };
    const answer = await staff.technician.post('/api/logs').send(other).expect(422);
    expect((answer.body as Refusal).fields).toMatchObject([{ field: 'subject.rigId' }]);
  });

  it('is opened once, and by nobody else under the same id', async () => {
    const { header } = await openedRun();
    await staff.technician.post('/api/logs').send(header).expect(200);
    await staff.lead.post('/api/logs').send(header).expect(409);
  });

  it('is no viewer’s to open or to add to, and nobody’s but its owner’s to add to', async () => {
    const { header, send } = await openedRun();
    await staff.viewer
      .post('/api/logs')
      .send({ ...header, id: uuidv7() })
      .expect(403);
    await send(wholeRun().slice(0, 1), staff.viewer).expect(403);
    await send(wholeRun().slice(0, 1), staff.lead).expect(403);
  });

  it('of another shop is as if it were not there', async () => {
    const { header, send } = await openedRun();
    await send(wholeRun()).expect(200);
    for (const path of [
      `logs/${header.id}`,
      `logs/${header.id}/live`,
      `runs/${header.id}/export.json`,
      `runs/${header.id}/export.csv`,
      `runs/${header.id}/report.pdf`,
    ]) {
      await others.lead.get(`/api/${path}`).expect(404);
    }
    await send(wholeRun().slice(0, 1), others.technician).expect(404);
    await others.technician
      .post('/api/logs')
      .send({ ...header, id: uuidv7() })
      .expect(404);
    const held = await others.technician.post('/api/logs/held').send({ ids: [header.id] });
    expect(held.body).toEqual({ logs: [] });
    await request(shop.app).get(`/api/logs/${header.id}`).expect(401);
  });

  it('is refused with a unit that is not the run’s, a later revision, or steps nobody knows', async () => {
    const unit = await addTruck(staff.lead, String((number += 1)));
    const header = runHeader(unit);
    const refused = async (change: object, field: string) => {
      const answer = await staff.technician
        .post('/api/logs')
        .send({ ...header, made: { ...header.made, ...change } })
        .expect(422);
      expect((answer.body as Refusal).fields?.[0]?.field).toBe(field);
    };
    const { ruleSet, steps } = header.made;
    await refused({ unit: { ...unit, id: uuidv7() } }, 'made.unit.id');
    await refused({ unit: { ...unit, revision: 7 } }, 'made.unit.revision');
    await refused({ leftOut: ['static-hold'] }, 'made.leftOut');
    await refused({ ruleSet: { ...ruleSet, id: 'none' } }, 'made.ruleSet.id');
    await refused({ ruleSet: { ...ruleSet, revision: 9 } }, 'made.ruleSet.revision');
    await refused({ ruleSet: { ...roadTest, steps: ruleSet.steps } }, 'made.ruleSet');
    await refused({ towed: [await addTruck(staff.lead, String((number += 1)))] }, 'made.unitIds.1');
    await refused({ steps: steps.slice(0, -1) }, 'made.steps');
    const eased = steps.map((step) => ({ ...step, required: false }));
    await refused({ steps: eased }, 'made.steps');
  });

  it('is not taken with figures a phone made up for a unit, whatever revision it claims', async () => {
    const unit = await addTruck(staff.lead, String((number += 1)));
    const draft = truckDraft(unit.number, { buildYear: 2003 });
    await staff.lead.put(`/api/units/${unit.id}`).send({ revision: 1, draft }).expect(200);
    const makerLimits = { staticLeakMaxPsiPerMin: 20 };
    for (const claim of [unit, { ...unit, ...draft, revision: 2 }]) {
      const forged = runHeader({ ...claim, makerLimits });
      const answer = await staff.technician.post('/api/logs').send(forged).expect(422);
      expect(answer.body).toMatchObject({ fields: [{ field: 'made.unit' }] });
      // What was true at that revision is taken, old or new.
      await staff.technician.post('/api/logs').send(runHeader(claim)).expect(201);
    }
  });

  it('made by an earlier version is taken with that version’s words, but with nothing required left out', async () => {
    const unit = await addTruck(staff.lead, String((number += 1)));
    const header = { ...runHeader(unit), coreVersion: '0.2.0' };
    const steps = header.made.steps.map((step) => ({ ...step, title: `${step.title}!` }));
    const open = (made: object) =>
      staff.technician
        .post('/api/logs')
        .send({ ...header, id: uuidv7(), made: { ...header.made, ...made } });
    await open({ steps }).expect(201);
    await open({ steps: steps.slice(0, -1) }).expect(422);
    await open({ steps: steps.map((step) => ({ ...step, reckon: [] })) }).expect(422);
    await staff.technician
      .post('/api/logs')
      .send({ ...header, id: uuidv7(), coreVersion: '99.0.0' })
      .expect(422);
  });
});

describe('facts', () => {
  it('stand once, however they are cut, doubled and repeated on the way', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 7 }), fc.integer({ min: 1, max: 8 })), {
          minLength: 1,
          maxLength: 6,
        }),
        async (lots) => {
          const { send, record } = await openedRun();
          const facts = wholeRun();
          for (const [from, length] of lots) {
            const answer = await send(facts.slice(from, from + length));
            if (answer.status !== 200) expect((answer.body as Refusal).code).toBe('facts-missing');
          }
          await send(facts).expect(200);
          expect(unreceived((await record()).facts)).toEqual(facts);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('stand once when the same lot arrives several times at once', async () => {
    const { send, record } = await openedRun();
    const facts = wholeRun();
    const answers = await Promise.all([1, 2, 3, 4].map(() => send(facts)));
    expect(answers.map((each) => each.status)).toEqual([200, 200, 200, 200]);
    expect((await record()).facts).toHaveLength(facts.length);
  });

  it('are answered with what is held, lane by lane', async () => {
    const { header, send } = await openedRun();
    const facts = wholeRun();
    const answer = await send(facts.slice(0, 3)).expect(200);
    const held = {
      logId: header.id,
      held: 3,
      lanes: { [facts[0]?.lane ?? '']: 3 },
      closedAtMs: null,
    };
    expect(answer.body).toEqual(held);
    const unknown = uuidv7();
    const compared = await staff.technician
      .post('/api/logs/held')
      .send({ ids: [header.id, unknown] })
      .expect(200);
    expect(compared.body).toEqual({ logs: [held] });
  });

  it('before one that is refused are kept', async () => {
    const { send, record } = await openedRun();
    const facts = wholeRun();
    const spoilt = facts.map((fact, i) => (i === 2 ? { ...fact, readingPsi: 999 } : fact));
    const answer = await send(spoilt).expect(422);
    expect((answer.body as Refusal).fields?.[0]?.field).toBe('facts.2.readingPsi');
    expect(unreceived((await record()).facts)).toEqual(facts.slice(0, 2));
  });

  it('with half an emoji are refused with the field, and the next ones are taken', async () => {
    const { send } = await openedRun();
    const [ready] = wholeRun();
    const note = { ...ready, id: uuidv7(), seq: 2, kind: 'note', stepId: 'prepare' };
    delete (note as { gauge?: string }).gauge;
    const half = await send([ready!, { ...note, text: 'cold \ud83e' }]).expect(422);
    expect(half.body).toMatchObject({
      code: 'wrong-shape',
      fields: [{ field: 'facts.1.text' }],
    });
    await send([ready!, { ...note, text: 'cold 🥶' }]).expect(200);
  });

  it('are refused off the gauge, backwards in time and after the close, each naming its field', async () => {
    const { send, record } = await openedRun();
    const [ready, from, to] = wholeRun() as [RunFact, RunFact, RunFact];
    await send([ready]).expect(200);
    const high = await send([{ ...from, readingPsi: 999 }]).expect(422);
    expect((high.body as Refusal).fields).toEqual([
      {
        field: 'facts.0.readingPsi',
        message: '999 psi is off the gauge: it reads 0 to 150 psi.',
      },
    ]);
    const beyond = await send([{ ...from, readingPsi: 9999 }]).expect(422);
    expect(beyond.body).toMatchObject({
      code: 'wrong-shape',
      fields: [{ field: 'facts.0.readingPsi' }],
    });
    await send([from]).expect(200);
    const back = await send([{ ...to, atMs: from.atMs - 1000 }]).expect(422);
    expect(back.body).toMatchObject({ fields: [{ field: 'facts.0.atMs' }] });
    const { id: _id, lane, offsetMs, v } = from;
    const stamp = { id: uuidv7(), lane, seq: 3, atMs: from.atMs, offsetMs, v };
    const close = { ...stamp, kind: 'close', how: 'incomplete', reason: 'x' } as const;
    await send([close]).expect(200);
    const late = await send([{ ...to, seq: 4 }]).expect(409);
    expect(late.body).toMatchObject({ code: 'log-closed' });
    const newer = await send([{ ...to, seq: 4, v: 99 }]).expect(422);
    expect((newer.body as Refusal).message).toContain('reload');
    expect(unreceived((await record()).facts)).toEqual([ready, from, close]);
  });

  it('cannot carry an id that stands in another log, nor take a place that is taken', async () => {
    const one = await openedRun();
    const two = await openedRun();
    const [ready] = wholeRun();
    await one.send([ready!]).expect(200);
    expect((await two.send([ready!]).expect(409)).body).toMatchObject({ code: 'id-taken' });
    const again = await one.send([{ ...ready, id: uuidv7() }]).expect(409);
    expect(again.body).toMatchObject({ code: 'place-taken' });
  });
});

describe('a clock that is wrong', () => {
  const in2099 = Date.UTC(2099, 0, 1);

  it('puts no run later than it was received, so that the next one is the latest', async () => {
    const { unit, header, record } = await openedRun();
    const future = { ...runHeader(unit), startedAtMs: in2099 };
    await staff.technician.post('/api/logs').send(future).expect(201);
    const facts = wholeRun(1, { startMs: in2099, offsetMs: in2099 - STARTED_MS });
    await staff.technician.post(`/api/logs/${future.id}/facts`).send({ facts }).expect(200);
    const kept = (await staff.viewer.get(`/api/logs/${future.id}`)).body as LogRecord<'run'>;
    // Device time, offset and time of receipt all stand in the record.
    expect(kept.closedAtMs).toBe((facts.at(-1)?.atMs ?? 0) - (in2099 - STARTED_MS));
    expect(kept.facts[0]).toMatchObject({
      atMs: in2099 + 5_000,
      offsetMs: in2099 - STARTED_MS,
    });
    expect(kept.facts[0]?.receivedAtMs).toBeLessThanOrEqual(Date.now());
    const later = wholeRun(6, { startMs: STARTED_MS + 3_600_000 });
    await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts: later }).expect(200);
    expect((await record()).closedAtMs).toBeGreaterThan(kept.closedAtMs ?? 0);
    const runs = (await staff.viewer.get(`/api/units/${unit.id}/runs`)).body as { id: string }[];
    expect(runs[0]?.id).toBe(header.id);
  });

  it('that cannot be known lets a failure count as the latest until somebody says what it was', async () => {
    const { unit, header, yardRow } = await openedRun();
    // A failed run by a phone whose clock fell back to 2001, then a good one by a phone that is right.
    const lost = { ...runHeader(unit), startedAtMs: Date.UTC(2001, 0, 1), offsetMs: null };
    await staff.technician.post('/api/logs').send(lost).expect(201);
    const failed = wholeRun(6, { startMs: Date.UTC(2001, 0, 1), offsetMs: null });
    const append = (facts: object[], by = staff.technician) =>
      by.post(`/api/logs/${lost.id}/facts`).send({ facts });
    await append(failed).expect(200);
    await staff.technician
      .post(`/api/logs/${header.id}/facts`)
      .send({ facts: wholeRun(1) })
      .expect(200);
    expect((await yardRow())?.last).toMatchObject({
      runId: lost.id,
      verdict: 'fail',
      timeUnsure: true,
    });
    const lane = failed[0]?.lane ?? '';
    const answer = (aheadMs: number, seq: number) => ({
      ...laneOf([[0, { kind: 'clock', ofLane: lane, aheadMs }]], { startMs: Date.now() })[0]!,
      seq,
    });
    // A day before the good run: the good one is the latest then.
    const aheadMs = Date.UTC(2001, 0, 1) - (STARTED_MS - 86_400_000);
    await append([answer(aheadMs, 1)], staff.viewer).expect(403);
    await append([answer(aheadMs, 1)], staff.lead).expect(200);
    const row = await yardRow();
    expect(row?.last).toMatchObject({ runId: header.id, verdict: 'pass', timeUnsure: false });
    const kept = (await staff.viewer.get(`/api/logs/${lost.id}`)).body as LogRecord<'run'>;
    expect(kept.timeUnsure).toBe(false);
    expect(kept.startedAtMs).toBe(STARTED_MS - 86_400_000);
  });

  it('is told the server’s time with every answer', async () => {
    const answer = await staff.viewer.get('/api/me').expect(200);
    expect(Math.abs(Number(answer.headers['server-time']) - Date.now())).toBeLessThan(5_000);
  });
});

it('keeps what is made on a unit readable after the unit was changed', async () => {
  const { unit, header, send, record } = await openedRun();
  await send(wholeRun()).expect(200);
  const draft = truckDraft(unit.number, { buildYear: 1999, circuits: 'single' });
  await staff.lead
    .put(`/api/units/${unit.id}`)
    .send({
      revision: 1,
      draft: { ...draft, tanks: draft.tanks.filter(({ role }) => role !== 'secondary') },
    })
    .expect(200);
  const kept = await record();
  expect(kept.header.made).toEqual(
    runMade({ unit, towed: [], ruleSet: header.made.ruleSet, leftOut: ['drain'] }),
  );
});
