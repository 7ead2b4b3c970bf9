import type { DrainRows, FoundAtParts, Unit, VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, plumbingOf, VISIT_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import {
  addTruck,
  laneOf,
  makeStaff,
  openTestShop,
  STARTED_MS,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let others: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'f');
  others = await makeStaff(shop, 'g');
});
afterAll(() => shop.close());

let number = 300;

/** A visit on a truck, and the way to put facts into it one after the other. */
async function visited() {
  const unit = await addTruck(staff.lead, String((number += 1)));
  const header: VisitHeader = {
    id: uuidv7(),
    kind: 'visit',
    v: VISIT_VERSION,
    subject: { unitId: unit.id, rigId: null, partId: null },
    startedAtMs: STARTED_MS,
    offsetMs: 0,
    coreVersion: CORE_VERSION,
    made: { units: [unit], reason: null },
  };
  await staff.technician.post('/api/logs').send(header).expect(201);
  const lane = uuidv7();
  let seq = 0;
  const say = async (fact: object) => {
    const answer = await staff.technician.post(`/api/logs/${header.id}/facts`).send({
      facts: [
        {
          ...laneOf([[(seq += 1), { kind: 'note' }]], { startMs: Date.now() })[0]!,
          lane,
          seq,
          v: VISIT_VERSION,
          at: null,
          ...fact,
        },
      ],
    });
    // What was refused has no place in the lane.
    if (answer.status !== 200) seq -= 1;
    return answer;
  };
  const now = async () => (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
  return { unit, header, say, now };
}

const check = (unit: Unit, change: object = {}) => ({
  kind: 'check',
  at: { unitId: unit.id, partId: 'rear-relay' },
  checkId: '0/listen/rear relay: exhaust/released',
  title: 'Listen at the rear relay’s exhaust',
  answer: { kind: 'grade', grade: 'hiss' },
  said: 'a hiss',
  ...change,
});

describe('what is found at a part', () => {
  it('is read again at that part, the newest first, by everybody of the shop and nobody else', async () => {
    const { unit, say } = await visited();
    await say(check(unit));
    expect(
      (
        await say({
          kind: 'seen',
          at: { unitId: unit.id, partId: 'foot-valve' },
          standing: 'good',
          text: 'Boot is whole',
        })
      ).status,
    ).toBe(200);
    const found = (await staff.viewer.get(`/api/units/${unit.id}/found`).expect(200))
      .body as FoundAtParts;
    expect(found.map(({ partId, said, by }) => [partId, said, by])).toEqual([
      ['foot-valve', 'good: Boot is whole', 'technician'],
      ['rear-relay', 'Listen at the rear relay’s exhaust: a hiss', 'technician'],
    ]);
    expect((await others.lead.get(`/api/units/${unit.id}/found`)).body).toEqual([]);
  });

  it('is evidence where suspects are weighed by it: checks, complaints and names, each as it was given', async () => {
    const { unit, say } = await visited();
    await say(check(unit));
    const complaint = {
      kind: 'complaint',
      at: undefined,
      unitId: unit.id,
      complaintId: 'blows',
      text: 'Air blows',
    };
    expect((await say(complaint)).status).toBe(200);
    const named = { kind: 'named', faultId: 'seat: rear relay: inlet', text: 'Rear relay: inlet' };
    expect((await say({ ...named, at: { unitId: unit.id, partId: 'rear-relay' } })).status).toBe(
      200,
    );
    expect(
      (
        await say({
          ...{
            kind: 'ranked',
            at: undefined,
            unitId: unit.id,
            coreVersion: '0.4.0',
            text: 'Rear relay 71',
          },
          suspects: [{ faultIds: ['seat: rear relay: inlet'], chance: 0.71 }],
        })
      ).status,
    ).toBe(200);
    const found = (await staff.viewer.get(`/api/units/${unit.id}/found`)).body as FoundAtParts;
    expect(found.map(({ evidence, partId }) => [partId, evidence?.kind])).toEqual([
      ['rear-relay', 'named'],
      ['', 'complaint'],
      ['rear-relay', 'check'],
    ]);
    // Of a unit that is not in the visit, or with a chance that is none, it is refused in words.
    const elsewhere = await say({ ...complaint, unitId: uuidv7() });
    expect(elsewhere.status).toBe(422);
    expect(JSON.stringify(elsewhere.body)).toContain('not part of this visit');
    const sure = await say({
      ...{ kind: 'ranked', at: undefined, unitId: unit.id, coreVersion: '0.4.0', text: 'x' },
      suspects: [{ faultIds: ['seat: rear relay: inlet'], chance: 71 }],
    });
    expect(sure.status).toBe(422);
  });

  it('is no longer there once it was taken back', async () => {
    const { unit, say } = await visited();
    const id = uuidv7();
    expect((await say(check(unit, { id }))).status).toBe(200);
    expect((await say({ kind: 'retract', target: id, at: undefined })).status).toBe(200);
    expect((await staff.viewer.get(`/api/units/${unit.id}/found`)).body).toEqual([]);
  });

  it('is refused at a part that the unit does not have, and in no shape that a check asks for', async () => {
    const { unit, say } = await visited();
    const nowhere = await say(check(unit, { at: { unitId: unit.id, partId: 'no-such-part' } }));
    expect(nowhere.status).toBe(422);
    expect(JSON.stringify(nowhere.body)).toContain('at.partId');
    const shapeless = await say(check(unit, { answer: { kind: 'number', value: 'a lot' } }));
    expect(shapeless.status).toBeGreaterThanOrEqual(400);
    expect(shapeless.status).toBeLessThan(500);
  });

  it('is printed, for the shop alone', async () => {
    const { unit, header, say } = await visited();
    expect((await say(check(unit))).status).toBe(200);
    const pdf = await staff.viewer.get(`/api/visits/${header.id}/report.pdf`).expect(200);
    expect(pdf.headers['content-type']).toContain('application/pdf');
    await others.lead.get(`/api/visits/${header.id}/report.pdf`).expect(404);
  });
});

describe('a leak hunt and a drain round', () => {
  const held = (unit: Unit, change: object = {}) => ({
    kind: 'held',
    at: undefined,
    unitId: unit.id,
    state: 'released',
    needle: 'primary',
    fromPsi: 119,
    toPsi: 113,
    seconds: 180,
    text: 'Released, primary: 119 psi to 113 psi in 3:00',
    ...change,
  });
  const weather = (unit: Unit, change: object = {}) => ({
    kind: 'weather',
    at: undefined,
    unitId: unit.id,
    airC: 6,
    humidityPct: 90,
    lowC: -7,
    text: '6 °C, 90 % humidity',
    ...change,
  });
  const drain = (unit: Unit, change: object = {}) =>
    check(unit, {
      at: { unitId: unit.id, partId: 'supply-tank' },
      checkId: '0/drain/supply tank',
      title: 'Drain the supply tank and look',
      answer: { kind: 'grade', grade: 'cup' },
      said: 'a cup',
      water: { ml: 70, what: ['milky', 'oil'], stuck: true, with: ['primary-tank'] },
      ...change,
    });

  it('keep holds, mends, weather and water as they were given, for every device of the shop', async () => {
    const { unit, say } = await visited();
    const mended = {
      kind: 'mended',
      at: { unitId: unit.id, partId: 'park-line' },
      checkId: '0/wet/park line',
      how: 'sealed',
      adapters: 'elbow, 3/8 in',
      text: 'Park line, sealed again',
    };
    const aside = {
      kind: 'aside',
      at: undefined,
      unitId: unit.id,
      about: 'wiring',
      text: 'Cable rubs',
    };
    for (const fact of [held(unit), mended, aside, weather(unit), drain(unit)]) {
      expect((await say(fact)).status).toBe(200);
    }
    const found = (await staff.viewer.get(`/api/units/${unit.id}/found`)).body as FoundAtParts;
    expect(found.map(({ evidence }) => evidence).reverse()).toEqual([
      {
        kind: 'held',
        state: 'released',
        needle: 'primary',
        fromPsi: 119,
        toPsi: 113,
        seconds: 180,
      },
      { kind: 'mended', checkId: '0/wet/park line' },
      null,
      { kind: 'weather', airC: 6, humidityPct: 90, lowC: -7 },
      expect.objectContaining({
        kind: 'check',
        water: { ml: 70, what: ['milky', 'oil'], stuck: true, with: ['primary-tank'] },
      }),
    ]);
    expect((await others.lead.get(`/api/units/${unit.id}/found`)).body).toEqual([]);
  });

  it.each([
    ['a drain of 40 litres', 'Water', (unit: Unit) => drain(unit, { water: { ml: 40_000 } })],
    [
      'a tank that is not there',
      'water.with',
      (unit: Unit) => drain(unit, { water: { with: ['tank-nine'] } }),
    ],
    ['a hold of two seconds', 'Seconds', (unit: Unit) => held(unit, { seconds: 2 })],
    ['a state nobody knows', 'State', (unit: Unit) => held(unit, { state: 'upside down' })],
    ['air at 90 °C', 'Air', (unit: Unit) => weather(unit, { airC: 90 })],
    ['humidity of 140 %', 'Humidity', (unit: Unit) => weather(unit, { humidityPct: 140 })],
    ['a unit of another visit', 'unitId', (unit: Unit) => held(unit, { unitId: uuidv7() })],
  ])('refuse %s by its field, and keep nothing of it', async (_, field, fact) => {
    const { unit, say } = await visited();
    const answer = await say(fact(unit));
    expect(answer.status).toBe(422);
    expect(JSON.stringify(answer.body)).toContain(field);
    expect((await staff.viewer.get(`/api/units/${unit.id}/found`)).body).toEqual([]);
  });

  it('tell when each unit was drained, in the shop alone, and call for what was not', async () => {
    const { unit, say } = await visited();
    const rowOf = async (who: Staff) =>
      ((await who.viewer.get('/api/drains').expect(200)).body as DrainRows).find(
        ({ unitId }) => unitId === unit.id,
      );
    const dueText = async () => (await staff.viewer.get('/api/due.ics').expect(200)).text;
    expect(await rowOf(staff)).toEqual({ unitId: unit.id, drainedAtMs: null, said: null });
    const before = /SUMMARY:Drain tanks: (\d+) units/.exec(await dueText());
    expect((await say(held(unit))).status).toBe(200);
    expect((await rowOf(staff))?.drainedAtMs).toBeNull();
    expect((await say(drain(unit))).status).toBe(200);
    const row = (await rowOf(staff))!;
    expect(Math.abs(row.drainedAtMs! - Date.now())).toBeLessThan(60_000);
    expect(row.said).toBe('Drain the supply tank and look: a cup');
    expect(await rowOf(others)).toBeUndefined();
    const after = /SUMMARY:Drain tanks: (\d+) units/.exec(await dueText());
    expect(Number(after![1])).toBe(Number(before![1]) - 1);
  });

  it('teach what a grade was in this shop, until it is taken back', async () => {
    const { unit, say } = await visited();
    const id = uuidv7();
    const taught = [{ grade: 'stream', scfm: 0.42, deviation: 0.08 }];
    const grades = async (who: Staff) =>
      (await who.viewer.get('/api/grades').expect(200)).body as unknown;
    const before = (await grades(others)) as unknown[];
    expect((await say(held(unit, { id, taught }))).status).toBe(200);
    expect(await grades(staff)).toEqual(taught);
    expect(await grades(others)).toEqual(before);
    expect((await say({ kind: 'retract', target: id, at: undefined })).status).toBe(200);
    expect(await grades(staff)).toEqual([]);
    const wrong = [{ grade: 'torrent', scfm: 0.42, deviation: 0.08 }];
    expect((await say(held(unit, { taught: wrong }))).status).toBe(422);
  });

  it('are not written by who may only look', async () => {
    const { unit, header } = await visited();
    const fact = {
      ...laneOf([[1, { kind: 'note' }]], { startMs: Date.now() })[0]!,
      lane: uuidv7(),
      seq: 1,
      v: VISIT_VERSION,
      ...held(unit),
    };
    const send = (who: Staff['viewer']) =>
      who.post(`/api/logs/${header.id}/facts`).send({ facts: [fact] });
    expect((await send(staff.viewer)).status).toBe(403);
    expect((await send(others.technician)).status).toBe(404);
    expect((await send(staff.technician)).status).toBe(200);
  });
});

describe('how a line is found', () => {
  it('makes a revision of the unit, is told of where it cannot be, and loses nothing', async () => {
    const { unit, say, now } = await visited();
    expect(
      (
        await say({
          kind: 'line',
          at: { unitId: unit.id, lineId: 'rear-relay.supply' },
          standing: 'fitted',
          to: { partId: 'rear-relay', port: 'control' },
        })
      ).status,
    ).toBe(200);
    const found = await now();
    expect(found.revision).toBe(unit.revision + 1);
    expect(found.lines).toMatchObject([{ lineId: 'rear-relay.supply', to: { port: 'control' } }]);
    expect(plumbingOf(found).problems.map(({ what }) => what)).toContain('two-lines');
    // What nobody could plumb is kept as it was said, and told.
    expect(
      (
        await say({
          kind: 'line',
          at: { unitId: unit.id, lineId: 'dash-feed.in' },
          standing: 'fitted',
          to: { partId: 'gone', port: 'in' },
        })
      ).status,
    ).toBe(200);
    expect(plumbingOf(await now()).problems.map(({ what }) => what)).toContain('no-part');
  });

  it('cannot be taken back, only said anew', async () => {
    const { unit, say } = await visited();
    const id = uuidv7();
    const line = {
      kind: 'line',
      at: { unitId: unit.id, lineId: 'rear-relay.supply' },
      standing: 'fitted',
    };
    expect((await say({ ...line, id })).status).toBe(200);
    expect((await say({ kind: 'retract', target: id, at: undefined })).status).toBe(422);
    expect((await say({ ...line, standing: 'not-known' })).status).toBe(200);
  });
});
