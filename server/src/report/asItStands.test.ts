import type { ChainStanding, VisitFact, VisitHeader } from '@keen-bleed/contract';
import { FoldedLog, outcomeOfRun, visitKind } from '@keen-bleed/core';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { jobHeader, JobWriter } from '../../../core/src/test/jobWriter';
import { rigsOfEverySort, switchedOver } from '../../../core/src/test/rigsOfEverySort';
import { unitOf, Walk } from '../../../core/src/test/walk';
import { roadTest } from '../../../core/src/standards/roadTest';
import { isAnswered, itemsOf } from '../../../core/src/run/findingsOf';
import { padNow } from '../../../core/src/run/awaiting';
import { releasePage } from './releasePage';
import { runReport } from './runReport';
import { sharedJob } from './sharedJob';
import { visitReport } from './visitReport';

/*
 * Pages as they go to the printer, word by word and line by line: no proof that they are well made, which is for eyes,
 * but nothing on them moves or is lost unseen. Look at a printed page before you keep a difference.
 */
jest.mock('./printer', () => ({
  printed: (definition: TDocumentDefinitions) => Promise.resolve(definition),
}));

const whole: ChainStanding = { head: 'abcdef0123456789fedcba9876543210', brokenAt: null };
const shop = { shopName: 'Winter Road Depot', timeZone: 'Europe/Oslo' };
const writers = { '00000000-0000-7000-8000-0000000000a1': 'Idris' };

/** A page as text: its foot as it is printed, and a line for each thing on it. */
function said(page: unknown): string {
  const { footer, ...rest } = page as TDocumentDefinitions;
  const foot = (footer as (page: number, pages: number) => unknown)(1, 3);
  return JSON.stringify({ ...rest, foot }, null, 1)
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => !/^[[\]{}],?$/.test(line))
    .join('\n');
}

/** A run walked to its end. */
function walked(walk: Walk, bad: boolean): Walk {
  for (let guard = 0; walk.state.step && guard < 90; guard += 1) {
    const { step } = walk.state;
    walk.wait(20);
    const found = Object.fromEntries(
      itemsOf(step).map(({ key, options }, n) => [
        key,
        options[bad && n % 2 === 0 ? options.length - 1 : 0]!.value,
      ]),
    );
    if (step.act.kind === 'ready') walk.ready(undefined, found);
    else if (isAnswered(step.act)) walk.look(found);
    else if (walk.state.hold && bad) {
      walk.wait((walk.state.hold.endsAtMs - walk.nowMs) / 1000);
      walk.mark((padNow(walk.state, walk.nowMs)?.proposedPsi ?? 20) - 14);
    } else if (walk.state.hold) walk.holdOver();
    else if (bad && step.id === 'warning')
      walk.add({ kind: 'skip', stepId: step.id, reason: 'no key' });
    else walk.mark(padNow(walk.state, walk.nowMs)?.spec.key === 'cut-in' ? 106 : undefined);
    if (bad && step.id === 'cut-out')
      walk.add({ kind: 'note', stepId: step.id, text: 'dryer is loud' });
  }
  return walk.add({ kind: 'close', how: 'complete' }) && walk;
}

const runs: Readonly<Record<string, () => Walk>> = {
  'a good run of a truck': () =>
    walked(new Walk(unitOf('truck', '10'), { ruleSet: roadTest }), false),
  'a bad run of a tractor and its trailer, headed as read': () =>
    walked(
      new Walk(unitOf('tractor', '11'), {
        towed: [unitOf('trailer', '22')],
        ruleSet: switchedOver,
      }),
      true,
    ),
  'a run of a bus in bar': () =>
    walked(
      new Walk(rigsOfEverySort['a bus, its dial in bar']!.unit, { ruleSet: roadTest, leftOut: [] }),
      true,
    ),
};

describe('a run on paper', () => {
  it.each(Object.entries(runs))('%s', async (_, make) => {
    const walk = make();
    const { header } = walk.log;
    const page = await runReport({
      ...shop,
      standing: [
        {
          ...{ runId: 'r', key: 'look:couplers/seals', title: 'Coupler seals', said: 'perished' },
          ...{ sinceMs: 1_759_000_000_000, unitIds: [header.made.unit.id], figure: null },
        },
      ].slice(header.made.towed.length),
      header,
      facts: walk.facts,
      by: 'Idris',
      startedAtMs: header.startedAtMs,
      closedAtMs: walk.nowMs,
      timeUnsure: header.made.towed.length > 0,
      chain: header.made.towed.length > 0 ? { ...whole, brokenAt: 4 } : whole,
      state: walk.state,
      outcome: outcomeOfRun(header, walk.state),
    });
    expect(said(page)).toMatchSnapshot();
  });
});

describe('a job on paper', () => {
  const truck = unitOf('truck', '10');
  const relay = { unitId: truck.id, partId: 'rear-relay' };
  const reading = {
    title: 'Static leak',
    unit: 'psi/min',
    before: 4.04,
    after: 1.25,
    expected: null,
  };

  it.each([true, false])('released: %s', async (released) => {
    const job = new JobWriter(jobHeader([truck, unitOf('trailer', '22')], { foundOn: [truck.id] }));
    job.tell({ kind: 'proven', at: relay, text: 'does not <let> go', by: 'Curve' });
    job.tell({ kind: 'chosen', at: relay, repair: 'replaced', offered: { setPsi: 4 } });
    job.tell({
      ...{ kind: 'fitted', at: relay, repair: 'replaced', was: { setPsi: 6 }, now: { setPsi: 4 } },
      photos: ['00000000-0000-7000-8000-0000000000c1'],
    } as never);
    job.tell({ kind: 'note', text: 'Torque checked' });
    if (released) {
      for (const { id } of job.state.owed) {
        job.tell({
          ...{ kind: 'retested', owedId: id, logId: truck.id, verdict: 'pass', said: 'Holds' },
          readings: [reading],
        } as never);
      }
      job.tell({ kind: 'ask-release' });
    }
    const state = {
      ...job.state,
      released: released
        ? { atServerMs: 1_760_000_900_000, lane: Object.keys(writers)[0], digest: 'f'.repeat(64) }
        : null,
    } as never;
    const page = {
      ...shop,
      ...{ header: job.log.header as never, facts: job.log.facts, state },
      ...{ by: 'Maren', writers, startedAtMs: 1_760_000_000_000, closedAtMs: null, chain: whole },
    };
    expect(said(await releasePage(page))).toMatchSnapshot();
    const photos = new Map([['00000000-0000-7000-8000-0000000000c1', 'data:image/png;base64,AA']]);
    const html = sharedJob({ ...page, photos });
    expect(html.split('>').join('>\n')).toMatchSnapshot();
    expect(html).not.toContain('<let>');
  });
});

it('a visit on paper', async () => {
  const units = [unitOf('truck', '10'), unitOf('trailer', '22')];
  const [truck] = units;
  const header = {
    ...{ id: 'v', kind: 'visit', v: 1, startedAtMs: 1_760_000_000_000, offsetMs: 0 },
    ...{ coreVersion: '0.4.0', subject: { unitId: truck!.id, rigId: null, partId: null } },
    made: { units },
  } as unknown as VisitHeader;
  const at = { unitId: truck!.id, partId: 'rear-relay' };
  const [lane] = Object.keys(writers);
  let seq = 0;
  const fact = (change: object) =>
    ({
      ...{
        id: `f${(seq += 1)}`,
        lane,
        seq,
        atMs: 1_760_000_000_000 + seq * 60_000,
        offsetMs: 0,
        v: 1,
      },
      ...change,
    }) as unknown as VisitFact;
  const facts = [
    fact({ kind: 'note', at: null, text: 'Left in the yard over night' }),
    ...['good', 'noted', 'bad'].map((standing) =>
      fact({ kind: 'seen', at, standing, text: 'Bracket', photos: ['p1', 'gone'] }),
    ),
    fact({
      ...{ kind: 'check', at, checkId: 'x', title: 'Listen at the relay', said: 'A hiss' },
      answer: { kind: 'grade', grade: 'hiss' },
    }),
    fact({ kind: 'complaint', complaintId: 'blows', text: 'It blows' }),
    ...['fitted', 'not-fitted', 'not-known'].map((standing) =>
      fact({ kind: 'part', at, standing, setPsi: 4, thread: '3/8', note: 'new', number: 'R1' }),
    ),
    fact({
      ...{
        kind: 'line',
        at: { unitId: truck!.id, lineId: 'rear service line' },
        standing: 'fitted',
      },
      ...{ boreMm: 8, colour: 'blue', note: 'chafed' },
    }),
    fact({ kind: 'close' }),
  ];
  const log = new FoldedLog(visitKind, header, facts);
  const page = await visitReport({
    ...shop,
    ...{ header, facts, state: log.state, by: 'Maren', writers, chain: whole },
    ...{ startedAtMs: header.startedAtMs, photos: new Map([['p1', 'data:image/png;base64,AA']]) },
  });
  expect(said(page)).toMatchSnapshot();
});
