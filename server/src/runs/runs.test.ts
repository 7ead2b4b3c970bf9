import { check, type RunEvent, type RunRecord, type YardRow } from '@keen-bleed/contract';
import { roadTest } from '@keen-bleed/core';
import Ajv from 'ajv';
import fc from 'fast-check';
import Papa from 'papaparse';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  wholeRun,
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
  await agent.post('/api/runs').send(header).expect(201);
  const send = (events: readonly RunEvent[], by = agent) =>
    by.post(`/api/runs/${header.id}/events`).send({ events });
  const record = async () =>
    (await staff.viewer.get(`/api/runs/${header.id}`).expect(200)).body as RunRecord;
  return { unit, header, send, record };
}

describe('a run', () => {
  it('is kept mark by mark, judged, and found again in the yard', async () => {
    const { unit, send, record, header } = await openedRun();
    for (const event of wholeRun(1)) await send([event]).expect(200);
    const kept = await record();
    expect(kept.outcome).toMatchObject({ verdict: 'pass' });
    expect(kept).toMatchObject({ by: 'technician', gauge: 'primary' });
    const yard = (await staff.viewer.get('/api/yard')).body as YardRow[];
    const row = yard.find((each) => each.unit.id === unit.id);
    expect(row?.last).toMatchObject({ runId: header.id, verdict: 'pass', decisive: null });
    expect(row?.leakTrendPsiPerMin).toEqual([1]);
    expect(row?.lastCompleteAtMs).toBe(kept.closedAtMs);
  });

  it('shows as open in the yard until it is closed, and does not count as tested', async () => {
    const { unit, send } = await openedRun();
    await send(wholeRun().slice(0, 4)).expect(200);
    const yard = (await staff.viewer.get('/api/yard')).body as YardRow[];
    expect(yard.find((each) => each.unit.id === unit.id)).toMatchObject({
      last: null,
      lastCompleteAtMs: null,
      open: { by: 'technician' },
    });
  });

  it('carries the figure that failed, for lists', async () => {
    const { unit, send } = await openedRun();
    await send(wholeRun(6)).expect(200);
    const runs = await staff.viewer.get(`/api/units/${unit.id}/runs`).expect(200);
    expect(runs.body).toMatchObject([
      { verdict: 'fail', decisive: { id: 'static-leak', value: 6 } },
    ]);
  });

  it('is opened once, and by nobody else under the same id', async () => {
    const { header } = await openedRun();
    await staff.technician.post('/api/runs').send(header).expect(200);
    await staff.lead.post('/api/runs').send(header).expect(409);
  });

  it('is no viewer’s to open or to add to, and nobody’s but its owner’s to add to', async () => {
    const { header, send } = await openedRun();
    await staff.viewer
      .post('/api/runs')
      .send({ ...header, id: uuidv7() })
      .expect(403);
    await send(wholeRun().slice(0, 1), staff.viewer).expect(403);
    await send(wholeRun().slice(0, 1), staff.lead).expect(403);
  });

  it('of another shop is as if it were not there', async () => {
    const { header, unit, send } = await openedRun();
    await send(wholeRun()).expect(200);
    await others.lead.get(`/api/runs/${header.id}`).expect(404);
    await others.lead.get(`/api/runs/${header.id}/export.json`).expect(404);
    await others.lead.get(`/api/runs/${header.id}/export.csv`).expect(404);
    await send(wholeRun().slice(0, 1), others.technician).expect(404);
    await others.technician
      .post('/api/runs')
      .send({ ...runHeader(unit), unit })
      .expect(404);
    await request(shop.app).get(`/api/runs/${header.id}`).expect(401);
  });

  it('is refused with a unit that is not the run’s, a later revision, or steps nobody knows', async () => {
    const unit = await addTruck(staff.lead, String((number += 1)));
    const header = runHeader(unit);
    const refused = async (change: object, field: string) => {
      const answer = await staff.technician
        .post('/api/runs')
        .send({ ...header, ...change })
        .expect(422);
      expect((answer.body as { fields: { field: string }[] }).fields[0]?.field).toBe(field);
    };
    await refused({ unit: { ...unit, id: uuidv7() } }, 'unit.id');
    await refused({ unit: { ...unit, revision: 7 } }, 'unit.revision');
    await refused({ leftOut: ['static-hold'] }, 'leftOut');
    await refused({ ruleSet: { ...header.ruleSet, id: 'none' } }, 'ruleSet.id');
    await refused({ ruleSet: { ...header.ruleSet, revision: 9 } }, 'ruleSet.revision');
    const cut = { ...roadTest, steps: header.ruleSet.steps };
    await refused({ ruleSet: cut }, 'ruleSet');
    await refused({ towed: [await addTruck(staff.lead, String((number += 1)))] }, 'unitIds.1');
    await refused(
      { unit: { ...unit, governor: { cutInPsi: 120, cutOutPsi: 110 } } },
      'unit.governor.cutInPsi',
    );
  });

  it('keeps the unit as the shop knew it, whatever the phone claims of the same revision', async () => {
    const unit = await addTruck(staff.lead, String((number += 1)));
    const header = runHeader({
      ...unit,
      makerLimits: { staticLeakMaxPsiPerMin: 20 },
    });
    await staff.technician.post('/api/runs').send(header).expect(201);
    const record = (await staff.viewer.get(`/api/runs/${header.id}`)).body as RunRecord;
    expect(record.header.unit.makerLimits).toEqual({});
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
          const events = wholeRun();
          for (const [from, length] of lots) {
            const answer = await send(events.slice(from, from + length));
            // Either all of the lot stands, or none of it and the sender is told where to begin.
            if (answer.status !== 200)
              expect((answer.body as { code: string }).code).toBe('events-missing');
          }
          await send(events).expect(200);
          expect((await record()).events).toEqual(events);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('stand once when the same lot arrives several times at once', async () => {
    const { send, record } = await openedRun();
    const events = wholeRun();
    const answers = await Promise.all([1, 2, 3, 4].map(() => send(events)));
    expect(answers.map((each) => each.status)).toEqual([200, 200, 200, 200]);
    expect((await record()).events).toHaveLength(events.length);
  });

  it('are refused off the gauge, backwards in time and after the close, each naming its field', async () => {
    const { send, record } = await openedRun();
    const [ready, from, to] = wholeRun();
    if (ready?.kind !== 'ready' || from?.kind !== 'mark' || to?.kind !== 'mark')
      throw new Error('not the run meant');
    await send([ready]).expect(200);
    const high = await send([{ ...from, readingPsi: 999 }]).expect(422);
    expect(high.body).toMatchObject({
      fields: [
        {
          field: 'events.0.readingPsi',
          message: '999 psi is off the gauge: it reads 0 to 150 psi.',
        },
      ],
    });
    const beyond = await send([{ ...from, readingPsi: 9999 }]).expect(422);
    expect(beyond.body).toMatchObject({
      code: 'wrong-shape',
      fields: [{ field: 'events.0.readingPsi' }],
    });
    await send([from]).expect(200);
    const back = await send([{ ...to, atMs: from.atMs - 1000 }]).expect(422);
    expect(back.body).toMatchObject({ fields: [{ field: 'events.0.atMs' }] });
    const close = {
      id: uuidv7(),
      seq: 3,
      atMs: from.atMs,
      kind: 'close',
      how: 'incomplete',
      reason: 'x',
    } as const;
    await send([close]).expect(200);
    const late = await send([{ ...to, seq: 4 }]).expect(409);
    expect(late.body).toMatchObject({ code: 'run-closed' });
    // Nothing that stood before a refusal was touched by it.
    expect((await record()).events).toEqual([ready, from, close]);
  });

  it('cannot carry an id that stands in another run', async () => {
    const one = await openedRun();
    const two = await openedRun();
    const [ready] = wholeRun();
    if (!ready) throw new Error('no event');
    await one.send([ready]).expect(200);
    const answer = await two.send([ready]).expect(409);
    expect(answer.body).toMatchObject({ code: 'id-taken' });
  });
});

describe('taking a run out', () => {
  it('gives JSON that fits the schema served beside it', async () => {
    const { header, send } = await openedRun();
    await send(wholeRun()).expect(200);
    const schema = (await request(shop.app).get('/schema/run-export.json').expect(200))
      .body as object;
    const answer = await staff.viewer.get(`/api/runs/${header.id}/export.json`).expect(200);
    expect(answer.headers['content-disposition']).toMatch(/run-\d+-2025-10-09\.json/);
    const ajv = new Ajv({ discriminator: true, strict: false, validateFormats: false });
    expect(ajv.validate(schema, answer.body)).toBe(true);
    expect(check('runExport', answer.body).ok).toBe(true);
    expect((answer.body as { caution: string }).caution).toContain('does not replace');
  });

  it('gives CSV that a general-purpose reader takes apart again', async () => {
    const { header, send } = await openedRun();
    await send(wholeRun()).expect(200);
    const answer = await staff.viewer.get(`/api/runs/${header.id}/export.csv`).expect(200);
    const { data, errors } = Papa.parse<Record<string, string>>(answer.text.trim(), {
      header: true,
    });
    expect(errors).toEqual([]);
    expect(data.map((row) => [row.mark, row.readingPsi])).toEqual([
      ['from', '85'],
      ['to', '100'],
      ['cut-out', '126'],
      ['cut-in', '106'],
      ['start', '120'],
      ['end', '119'],
    ]);
  });
});
