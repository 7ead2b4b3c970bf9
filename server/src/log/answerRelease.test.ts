import type { JobHeader, LogRecord, Unit } from '@keen-bleed/contract';
import { JOB_VERSION } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { failedTrucks, retested } from '../test/failedTrucks';
import {
  makeStaff,
  openTestShop,
  runHeader,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'release');
});
afterAll(() => shop.close());

const { ran, failedTruck, anotherTruck } = failedTrucks(() => staff);

describe('a release that is asked for', () => {
  it('stays asked for, and its hold stands, while anything stands against it', async () => {
    const { header, at, told, tell, row } = await failedTruck();
    const blocks = async () =>
      ((await staff.viewer.get(`/api/jobs/${header.id}/blocks`)).body as { blocks: string[] })
        .blocks;
    await told({ kind: 'ask-release' }, staff.lead);
    expect(await row()).toMatchObject({ asked: true, released: false });
    expect(await blocks()).toEqual(
      expect.arrayContaining([
        'Nothing was fitted or mended yet.',
        expect.stringContaining('Still open on this vehicle'),
      ]),
    );
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
    // A retest that no record bears out does not release.
    await told(retested('step:static-hold', uuidv7()));
    await told({ kind: 'ask-release' }, staff.lead);
    expect(await row()).toMatchObject({ released: false });
    expect(await blocks()).toEqual(
      expect.arrayContaining([expect.stringContaining('its record has not come yet')]),
    );
    const answer = await tell(
      { kind: 'released', askId: uuidv7(), knew: {}, digest: '0'.repeat(64), atServerMs: 1 },
      staff.lead,
    );
    expect(answer.status).toBe(403);
  });

  it('is not released by a run from before the repair, nor by one that fails', async () => {
    const { header, at, told, row, unit } = await failedTruck();
    const early = await ran(unit, 1, { startMs: Date.now() - 1_200_000 });
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
    await told(retested('step:static-hold', early));
    await told({ kind: 'ask-release' }, staff.lead);
    const blocks = async () =>
      ((await staff.viewer.get(`/api/jobs/${header.id}/blocks`)).body as { blocks: string[] })
        .blocks;
    expect(await blocks()).toEqual([expect.stringContaining('started before the repair')]);
    // Nor by a run of another vehicle, however well that does.
    const another = await anotherTruck();
    await told(
      retested('step:static-hold', await ran(another, 1, { startMs: Date.now() + 1_000 })),
    );
    expect(await blocks()).toEqual(
      expect.arrayContaining([expect.stringContaining('of another vehicle')]),
    );
    const now = (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
    const failing = await ran(now, 7, { startMs: Date.now() + 1_000, retestOf: [header.id] });
    // Somebody says it passed; the record says otherwise.
    await told(retested('step:static-hold', failing));
    await told({ kind: 'ask-release' }, staff.lead);
    expect(await row()).toMatchObject({ released: false });
    expect(await blocks()).toEqual(
      expect.arrayContaining([expect.stringContaining('the record says otherwise')]),
    );
  });

  it('is not released by a run that is not finished', async () => {
    const { header, at, told, row, unit } = await failedTruck();
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
    const startMs = Date.now() + 1_000;
    const run = { ...runHeader(unit), startedAtMs: startMs };
    await staff.technician.post('/api/logs').send(run).expect(201);
    const facts = wholeRun(1, { startMs });
    const send = (some: typeof facts) =>
      staff.technician.post(`/api/logs/${run.id}/facts`).send({ facts: some }).expect(200);
    await send(facts.slice(0, -1));
    await told(retested('step:static-hold', run.id));
    await told({ kind: 'ask-release' }, staff.lead);
    const blocks = async () =>
      ((await staff.viewer.get(`/api/jobs/${header.id}/blocks`)).body as { blocks: string[] })
        .blocks;
    expect(await blocks()).toEqual(
      expect.arrayContaining([expect.stringContaining('is not finished')]),
    );
    expect(await row()).toMatchObject({ asked: true, released: false });
    await send(facts.slice(-1));
    expect(await blocks()).toEqual([]);
  });

  it('is not released while another job of the vehicle has something temporary on it', async () => {
    const { header, at, told, unit, row } = await failedTruck();
    const second: JobHeader = {
      ...header,
      id: uuidv7(),
      made: {
        ...header.made,
        bornOf: { kind: 'hand' },
        failures: [],
        found: 'Moved with a caged spring',
      },
    };
    await staff.technician.post('/api/logs').send(second).expect(201);
    const measure = (fact: object, seq: number, lane: string) =>
      staff.technician.post(`/api/logs/${second.id}/facts`).send({
        facts: [
          { id: uuidv7(), lane, seq, atMs: Date.now(), offsetMs: 0, v: JOB_VERSION, ...fact },
        ],
      });
    const lane = uuidv7();
    await measure(
      {
        kind: 'measure',
        measure: 'caged-spring',
        at: { unitId: unit.id, partId: 'rear-chambers.1-left' },
        text: 'left rear',
      },
      1,
      lane,
    ).expect(200);
    await told({ kind: 'proven', at, text: 'leaks', by: 'Soap' });
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
    const now = (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
    const good = await ran(now, 1, { startMs: Date.now() + 1_000, retestOf: [header.id] });
    await told(retested('step:static-hold', good));
    await told({ kind: 'ask-release' }, staff.lead);
    expect(await row()).toMatchObject({ released: false, asked: true });
    const { blocks } = (await staff.viewer.get(`/api/jobs/${header.id}/blocks`)).body as {
      blocks: string[];
    };
    expect(blocks).toEqual([expect.stringContaining('Spring caged, not undone: left rear')]);
  });

  it('is asked for anew where something that weighs was done after it was asked for', async () => {
    const { header, at, told, row, unit } = await failedTruck();
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
    const now = (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
    const good = await ran(now, 1, { startMs: Date.now() + 1_000, retestOf: [header.id] });
    await told(retested('step:static-hold', good));
    // A lead's phone without signal: both come in one lot.
    const lane = uuidv7();
    const facts = [{ kind: 'ask-release' }, retested('step:static-hold', good)].map((fact, n) => ({
      ...{ id: uuidv7(), lane, seq: n + 1, atMs: Date.now() + n, offsetMs: 0, v: JOB_VERSION },
      ...fact,
    }));
    await staff.lead.post(`/api/logs/${header.id}/facts`).send({ facts }).expect(200);
    expect(await row()).toMatchObject({ asked: false, released: false });
    await told({ kind: 'ask-release' }, staff.lead);
    expect(await row()).toMatchObject({ released: true });
    // The release’s lane is the lead’s: nobody else goes on in it.
    const record = (await staff.viewer.get(`/api/logs/${header.id}`)).body as LogRecord;
    const release = record.facts.find(({ kind }) => kind === 'released');
    const after = {
      ...{ id: uuidv7(), lane: release?.lane, seq: 2, atMs: Date.now(), offsetMs: 0 },
      ...{ v: JOB_VERSION, kind: 'note', text: 'In its place' },
    };
    const send = staff.technician.post(`/api/logs/${header.id}/facts`);
    expect((await send.send({ facts: [after] })).body).toMatchObject({ code: 'place-taken' });
  });

  it('is taken back by what a phone under a trailer had recorded before the release', async () => {
    const { header, at, told, row, unit, yard } = await failedTruck();
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
    const now = (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
    const good = await ran(now, 1, { startMs: Date.now() + 1_000, retestOf: [header.id] });
    await told(retested('step:static-hold', good));
    await told({ kind: 'ask-release' }, staff.lead);
    expect(await row()).toMatchObject({ released: true });
    await staff.technician
      .post(`/api/logs/${header.id}/facts`)
      .send({
        facts: [
          {
            id: uuidv7(),
            lane: uuidv7(),
            seq: 1,
            kind: 'measure',
            measure: 'capped-line',
            at: null,
            text: 'Park line capped',
            atMs: Date.now() - 60_000,
            offsetMs: 0,
            v: JOB_VERSION,
          },
        ],
      })
      .expect(200);
    expect(await row()).toMatchObject({ released: false, closedAtMs: null });
    expect((await yard())?.holds).toEqual(
      expect.arrayContaining([expect.stringContaining('Park line capped')]),
    );
  });
});
