import type { ChainStanding, RunFact, Unit, VisitFact, VisitHeader } from '@keen-bleed/contract';
import { FoldedLog, outcomeOfRun, unitTitle, visitKind } from '@keen-bleed/core';
import { roadTest } from '../../../core/src/standards/roadTest';
import { unitOf, Walk } from '../../../core/src/test/walk';
import { runReport } from './runReport';
import { visitReport } from './visitReport';

jest.mock('./printer', () => ({ printed: (page: unknown) => Promise.resolve(page) }));

const chain: ChainStanding = { head: 'abcdef0123456789fedcba9876543210', brokenAt: null };
const shop = { shopName: 'Winter Road Depot', timeZone: 'Europe/Oslo', chain };

/** Every word of a page. */
const wordsOf = (page: unknown): string => {
  const words: string[] = [];
  JSON.stringify(page, (key, value: unknown) => {
    if (typeof value === 'string' && key !== 'svg') words.push(value);
    return value;
  });
  return words.join('\n');
};

describe('a visit on paper', () => {
  const printed = async (units: readonly Unit[], facts: readonly VisitFact[] = []) => {
    const header = {
      ...{ id: 'v', kind: 'visit', v: 1, startedAtMs: 1_760_000_000_000, offsetMs: 0 },
      ...{ coreVersion: '0.4.0', subject: { unitId: units[0]!.id, rigId: null, partId: null } },
      made: { units },
    } as unknown as VisitHeader;
    const { state } = new FoldedLog(visitKind, header, facts);
    return wordsOf(
      await visitReport({
        ...{ ...shop, header, facts, state, by: 'Maren', writers: {} },
        ...{ startedAtMs: header.startedAtMs, photos: new Map() },
      }),
    );
  };

  it('says what cannot be as it was described, and nothing of it where all can', async () => {
    const truck = unitOf('truck', '10');
    const without = { partId: 'foot-valve', standing: 'not-fitted', foundAtMs: 1 } as const;
    const heading = 'Lines and parts that cannot be';
    const page = await printed([{ ...truck, parts: [without] }]);
    expect(page).toContain(heading);
    expect(page).toMatch(/foot valve/i);
    expect(await printed([truck])).not.toContain(heading);
  });

  it('names the part, and where there are several units whose it is', async () => {
    const [truck, trailer] = [unitOf('truck', '10'), unitOf('trailer', '22')];
    const seen = (unitId: string, partId: string) =>
      ({
        ...{ id: 'f1', lane: 'l', seq: 1, atMs: 1_760_000_060_000, offsetMs: 0, v: 1 },
        ...{ kind: 'seen', at: { unitId, partId }, standing: 'bad', text: 'Cracked' },
      }) as unknown as VisitFact;
    const alone = await printed([truck], [seen(truck.id, 'rear-relay')]);
    expect(alone).toContain('Rear relay');
    expect(alone).not.toContain(`Rear relay, ${unitTitle(truck)}`);
    const rig = await printed([truck, trailer], [seen(trailer.id, 'relay')]);
    expect(rig).toContain(`elay, ${unitTitle(trailer)}`);
    expect(rig).not.toContain(`elay, ${unitTitle(truck)}`);
  });
});

describe('a run on paper', () => {
  const printed = async (walk: Walk, facts: readonly RunFact[] = walk.facts) => {
    const { header } = walk.log;
    return wordsOf(
      await runReport({
        ...{ ...shop, header, facts, by: 'Idris', standing: [] },
        ...{ startedAtMs: header.startedAtMs, closedAtMs: walk.nowMs, timeUnsure: false },
        ...{ state: walk.state, outcome: outcomeOfRun(header, walk.state) },
      }),
    );
  };

  it('says how far the device’s clock was off, from a minute on, by the worst of its entries', async () => {
    const walk = new Walk().untilHoldOver();
    walk.add({ kind: 'close', how: 'complete' });
    const off = (...ms: readonly (number | null)[]) =>
      printed(
        walk,
        walk.facts.map((fact, n) => ({ ...fact, offsetMs: ms[n % ms.length] ?? null })),
      );
    expect(await printed(walk)).not.toContain('times here are by the server’s');
    expect(await off(0, -59_999)).not.toContain('times here are by the server’s');
    expect(await off(0, -60_000)).toContain('of the device 1 min behind; times here');
    expect(await off(120_000, -720_000, 0)).toContain('of the device 12 min behind');
    expect(await off(null)).not.toContain('times here are by the server’s');
    const answered = [
      ...walk.facts.map((fact) => ({ ...fact, offsetMs: null })),
      {
        ...walk.facts[0]!,
        id: 'clock',
        seq: 99,
        kind: 'clock',
        ofLane: walk.facts[0]!.lane,
        aheadMs: 7_200_000,
      },
    ] as unknown as RunFact[];
    expect(await printed(walk, answered)).toContain('of the device 2 hours ahead');
  });

  it('has what was seen under its heading, and no heading where nothing was looked at', async () => {
    const heading = 'Seen, heard and felt';
    const nothing = new Walk();
    nothing.add({ kind: 'close', how: 'incomplete', reason: 'Called away' });
    expect(await printed(nothing)).not.toContain(heading);
    const whole = new Walk().untilHoldOver();
    whole.add({ kind: 'close', how: 'complete' });
    expect(await printed(whole)).not.toContain('Cut short');
    const drained = new Walk(unitOf('truck', '10'), { ruleSet: roadTest, leftOut: [] });
    drained.ready('primary', { water: 'much' });
    drained.add({ kind: 'close', how: 'incomplete', reason: 'Called away' });
    const page = await printed(drained);
    const outcome = outcomeOfRun(drained.log.header, drained.state);
    expect(outcome.findings.length).toBeGreaterThan(0);
    expect(page).toContain(heading);
    expect(page).toMatch(/Cut short\nCalled away/);
    for (const { title } of outcome.findings) expect(page).toContain(title);
  });
});
