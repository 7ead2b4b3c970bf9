import type { JobFact, JobRow, LogRecord, Unit, YardRow } from '@keen-bleed/contract';
import { runMade } from '@keen-bleed/core';
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { v7 as uuidv7 } from 'uuid';
import {
  makeStaff,
  openTestShop,
  runHeader,
  shortRuleSet,
  wholeRun,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { failedTrucks, retested } from '../test/failedTrucks';

let shop: TestShop;
let staff: Staff;
let others: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'j');
  others = await makeStaff(shop, 'k');
});
afterAll(() => shop.close());

const { ran, failedTruck, anotherTruck } = failedTrucks(() => staff);

describe('a job', () => {
  it('holds its vehicle in the yard from the critical failure until a lead releases it', async () => {
    const { header, told, at, row, yard, unit } = await failedTruck();
    expect((await yard())?.holds).toEqual(
      expect.arrayContaining([expect.stringContaining('Out of service: Static leak')]),
    );
    await told({ kind: 'proven', at, text: 'does not seat', by: 'Soap: stream' });
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: { thread: '1/4 NPT' } });
    expect(await row()).toMatchObject({
      station: 'fitted',
      owed: [{ id: 'step:static-hold' }],
      holds: [expect.stringContaining('Retest owed')],
    });
    // What was fitted stands with the unit from now on, with the day.
    const now = (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
    expect(now.parts).toMatchObject([
      { partId: 'primary-drain', thread: '1/4 NPT', standing: 'fitted' },
    ]);
    const retestId = await ran(now, 1, { startMs: Date.now() + 1_000, retestOf: [header.id] });
    await told(retested('step:static-hold', retestId));
    // The retest closes the failure; the hold stands until release.
    expect(await yard()).toMatchObject({
      failures: [],
      holds: ['Retest passed: waits for a lead to release it'],
      // What the last whole run said, with the retest beside it; a whole run that failed moves no date.
      last: { verdict: 'fail' },
      retest: { runId: retestId, verdict: 'pass' },
      lastCompleteAtMs: null,
    });
    await told({ kind: 'ask-release' }, staff.lead);
    expect(await row()).toMatchObject({ released: true, holds: [] });
    expect((await yard())?.holds).toEqual([]);
    const kept = (await staff.viewer.get(`/api/logs/${header.id}`)).body as LogRecord<'job'>;
    expect(kept.closedAtMs).not.toBeNull();
    expect(kept.facts.at(-1)).toMatchObject({ kind: 'released' });
  });

  it('does not count its retest as a whole test: the next one is due as it was', async () => {
    const { header, at, told, yard, unit } = await failedTruck();
    const before = (await yard())?.lastCompleteAtMs;
    await told({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
    const now = (await staff.viewer.get(`/api/units/${unit.id}`)).body as Unit;
    await ran(now, 1, { startMs: Date.now() + 1_000, retestOf: [header.id] });
    expect((await yard())?.lastCompleteAtMs).toBe(before);
  });
});

it('takes no day that there is not, and no check that is not named', async () => {
  const { tell, told, at, header } = await failedTruck();
  expect((await tell({ kind: 'wanted-by', day: '2026-99-99' })).status).toBe(422);
  await told({
    kind: 'fitted',
    at: { ...at, partId: 'park-line' },
    repair: 'remade',
    was: {},
    now: {},
  });
  await told(retested('check:0/park-line/soap', await ran(header.made.units[0]!, 1)));
  const { blocks } = (await staff.viewer.get(`/api/jobs/${header.id}/blocks`)).body as {
    blocks: string[];
  };
  expect(blocks).toEqual(
    expect.arrayContaining([expect.stringContaining('does not say which check')]),
  );
});

describe('who may do what in a job', () => {
  const anything = (at: object): [string, object][] => [
    ['proven', { at, text: 'leaks', by: 'Soap' }],
    ['chosen', { at, repair: 'replaced' }],
    ['refused', { at, offered: { setPsi: 10 }, problems: ['Cracks at 10'] }],
    ['waiting', { text: 'the drain' }],
    ['fitted', { at, repair: 'cleaned', was: {}, now: {} }],
    ['retested', retested('step:static-hold', uuidv7())],
    ['measure', { measure: 'blocked', at: null, text: 'Plug' }],
    ['owner', { personId: uuidv7(), name: 'Somebody' }],
    ['wanted-by', { day: '2026-12-01' }],
    ['reopened', { because: 'It still leaks' }],
    ['note', { text: 'x' }],
  ];
  const forLeads: [string, object][] = [
    ['ask-release', {}],
    ['close', { because: 'Sold' }],
  ];

  it('is told for every kind of entry: viewers nothing, technicians up to passed, leads all, other shops nothing', async () => {
    const { tell, at, header } = await failedTruck();
    for (const [kind, fact] of [...anything(at), ...forLeads]) {
      expect([kind, (await tell({ kind, ...fact }, staff.viewer)).status]).toEqual([kind, 403]);
      expect([kind, (await tell({ kind, ...fact }, others.lead)).status]).toEqual([kind, 404]);
    }
    for (const [kind, fact] of anything(at))
      expect([kind, (await tell({ kind, ...fact })).status]).toEqual([kind, 200]);
    for (const [kind, fact] of forLeads) {
      const answer = await tell({ kind, ...fact });
      expect([kind, answer.status, (answer.body as Refusal).code]).toEqual([
        kind,
        403,
        'not-allowed',
      ]);
    }
    const override = { kind: 'chosen', at, repair: 'replaced', override: 'All I have' };
    expect((await tell(override)).status).toBe(403);
    expect((await tell(override, staff.lead)).status).toBe(200);
    for (const path of ['blocks', 'release.pdf', 'share.html', 'export.json']) {
      expect([path, (await others.lead.get(`/api/jobs/${header.id}/${path}`)).status]).toEqual([
        path,
        404,
      ]);
      expect([path, (await staff.viewer.get(`/api/jobs/${header.id}/${path}`)).status]).toEqual([
        path,
        200,
      ]);
    }
    expect(
      ((await others.lead.get('/api/jobs')).body as JobRow[]).map(({ id }) => id),
    ).not.toContain(header.id);
  });

  it('lets anybody put a conclusion right with a reason, and nothing else of another’s', async () => {
    const { tell, told, at } = await failedTruck();
    const wrong = await told({ kind: 'proven', at, text: 'leaks', by: 'Soap' });
    const other = { ...at, partId: 'supply-drain' };
    const right = {
      kind: 'proven',
      at: other,
      text: 'leaks',
      by: 'Soap: stream',
      supersedes: wrong,
    };
    expect((await tell(right, staff.lead)).status).toBe(403);
    expect((await tell({ ...right, because: 'Only old soap' }, staff.lead)).status).toBe(200);
    const note = await told({ kind: 'note', text: 'mine' });
    expect((await tell({ kind: 'retract', target: note }, staff.lead)).status).toBe(403);
  });

  it('refuses a part that does not match, naming what is offered and what is wanted', async () => {
    const { tell, unit } = await failedTruck();
    const answer = await tell({
      kind: 'fitted',
      at: { unitId: unit.id, partId: 'rear-relay' },
      repair: 'replaced',
      was: {},
      now: { setPsi: 10 },
    });
    expect(answer.status).toBe(422);
    expect((answer.body as Refusal).fields?.[0]).toMatchObject({
      field: 'facts.0.now',
      message: expect.stringContaining('10 psi offered, 4 psi ± 1 psi wanted') as string,
    });
  });
});

describe('what goes out of a job', () => {
  it('carries a digest that a few lines of anybody’s find again', async () => {
    const { header, at, told } = await failedTruck();
    await told({ kind: 'proven', at, text: 'leaks “here” – é', by: 'Soap' });
    await told({ kind: 'note', text: 'kept' }, staff.lead);
    const whole = (await staff.viewer.get(`/api/jobs/${header.id}/export.json`)).body as {
      header: object;
      facts: JobFact[];
      digest: { knew: Record<string, number>; sha256: string };
    };
    // Canonical JSON (RFC 8785): keys in order, numbers and strings as ECMAScript writes them.
    const canonical = (value: unknown): string =>
      Array.isArray(value)
        ? `[${value.map(canonical).join(',')}]`
        : typeof value === 'object' && value !== null
          ? `{${Object.keys(value)
              .sort()
              .map(
                (key) =>
                  `${JSON.stringify(key)}:${canonical((value as Record<string, unknown>)[key])}`,
              )
              .join(',')}}`
          : JSON.stringify(value);
    const hash = (text: string) => createHash('sha256').update(text).digest('hex');
    let head = hash(canonical(whole.header));
    for (const lane of Object.keys(whole.digest.knew).sort())
      for (const fact of whole.facts
        .filter((each) => each.lane === lane)
        .sort((a, b) => a.seq - b.seq))
        head = hash(`${head}\n${canonical(fact)}`);
    expect(head).toBe(whole.digest.sha256);
    // The command that anybody runs on the file says the same, and another of a file that was touched.
    const folder = mkdtempSync(join(tmpdir(), 'keen-bleed-job-'));
    const verdict = (content: object) => {
      writeFileSync(join(folder, 'job.json'), JSON.stringify(content));
      const script = join(__dirname, '../../../scripts/verify.mjs');
      return spawnSync(process.execPath, [script, join(folder, 'job.json')]).status;
    };
    expect(verdict(whole)).toBe(0);
    const [first, ...rest] = whole.facts;
    expect(verdict({ ...whole, facts: [{ ...first, text: 'leaks not' }, ...rest] })).toBe(2);
    rmSync(folder, { recursive: true });
  });

  it('is a page with its caution, a file that needs nothing else, and a list of parts', async () => {
    const { header, at, told, unit } = await failedTruck();
    await told({ kind: 'proven', at, text: 'leaks', by: 'Soap <stream>' });
    const pdf = await staff.viewer.get(`/api/jobs/${header.id}/release.pdf`);
    expect(pdf.headers['content-type']).toBe('application/pdf');
    const file = (await staff.viewer.get(`/api/jobs/${header.id}/share.html`)).text;
    expect(file).toContain('Not released');
    expect(file).toContain('Soap &#60;stream&#62;');
    expect(file).toContain('<svg');
    expect(file).not.toMatch(/src="http|href="http|<script/);
    const parts = (await staff.viewer.get('/api/jobs/parts.csv')).text;
    expect(parts).toContain(unit.number);
    expect(parts).toContain('Thread: not known yet');
  });
});

it('keeps a rule set’s own word on what takes a vehicle out of service', async () => {
  const unit = await anotherTruck();
  const lenient = {
    ...shortRuleSet,
    steps: shortRuleSet.steps.map((step) =>
      step.stepId === 'static-hold' ? { ...step, critical: false } : step,
    ),
  };
  const { id: _id, revision, basedOn: _basedOn, ...draft } = lenient;
  await staff.lead.put(`/api/rule-sets/${shortRuleSet.id}`).send({ revision, draft }).expect(200);
  const header = runHeader(unit);
  header.made = runMade({
    ...header.made,
    ruleSet: { ...lenient, revision: revision + 1 },
  });
  await staff.technician.post('/api/logs').send(header).expect(201);
  await staff.technician
    .post(`/api/logs/${header.id}/facts`)
    .send({ facts: wholeRun(6, { startMs: Date.now() - 3_600_000 }) })
    .expect(200);
  const row = ((await staff.viewer.get('/api/yard')).body as YardRow[]).find(
    (each) => each.unit.id === unit.id,
  );
  expect(row?.failures).toHaveLength(1);
  expect(row?.holds).toEqual([]);
});
