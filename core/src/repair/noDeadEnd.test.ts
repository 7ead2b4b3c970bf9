import type { JobFact, JobHeader } from '@keen-bleed/contract';
import fc from 'fast-check';
import { checksOf, checksOfRetest, type Check } from '../checks';
import { inOrder } from '../facts/factOrder';
import { partsOf } from '../rig/partsOf';
import { unitsOf } from '../rig/rigUnderTest';
import { roadTest } from '../standards/roadTest';
import { ruleSets } from '../standards/ruleSets';
import { jobHeader } from '../test/jobWriter';
import { semi, truck } from '../test/rigsInAir';
import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { JOB_VERSION } from '../log/kinds/job/jobKind';
import { stateOfJob, type JobState, type Owed } from './jobState';
import { releaseBlocks } from './release';
import { retestRun } from './retestRun';

/*
 * Two phones, each with a clock of its own, and a lead at a screen, write whatever they like in a job and send in any
 * order. Whatever came of it, the job says what is still to be done, and once that is done nothing stands against its
 * release: nobody is left with nothing owed and no way out.
 */
const RIGS = [
  truck,
  semi,
  rigsOfEverySort['a bus, its dial in bar']!,
  rigsOfEverySort['a truck of 1990 with an old trailer without springs']!,
];
const REPAIRS = ['replaced', 'cleaned', 'reseated', 'remade', 'adjusted'] as const;
const MEASURES = ['caged-spring', 'shop-air', 'capped-line', 'closed-cock', 'blocked'] as const;
const START_MS = 1_760_000_000_000;
const catalogues = new Map<object, readonly Check[]>(
  RIGS.map((rig) => [rig, checksOf(rig, [])] as const),
);

type Act =
  | { does: 'fit'; part: number; repair: number }
  | { does: 'measure' | 'undo'; which: number }
  | { does: 'test'; which: number; verdict: number }
  | { does: 'accept'; which: number }
  | { does: 'prove' | 'reopen' | 'ask' };
const number = fc.nat({ max: 10_000 });
const act: fc.Arbitrary<Act> = fc.oneof(
  fc.record({ does: fc.constant('fit' as const), part: number, repair: number }),
  fc.record({ does: fc.constant('measure' as const), which: number }),
  fc.record({ does: fc.constant('undo' as const), which: number }),
  fc.record({ does: fc.constant('test' as const), which: number, verdict: number }),
  fc.record({ does: fc.constant('accept' as const), which: number }),
  fc.record({ does: fc.constant('prove' as const) }),
  fc.record({ does: fc.constant('reopen' as const) }),
  fc.record({ does: fc.constant('ask' as const) }),
);
const history = fc.record({
  rig: fc.nat({ max: RIGS.length - 1 }),
  failed: fc.boolean(),
  acts: fc.array(fc.record({ act, by: fc.nat({ max: 2 }), waits: fc.nat({ max: 900 }) }), {
    maxLength: 25,
  }),
  shuffle: fc.nat({ max: 10_000 }),
});

/** Writes for three people whose clocks differ. */
class Shop {
  readonly facts: JobFact[] = [];
  private readonly seqs = [0, 0, 0];
  private atMs = START_MS;
  private ids = 0;

  constructor(private readonly header: JobHeader) {}

  get state(): JobState {
    return stateOfJob(this.header, inOrder(this.facts));
  }

  get nowMs(): number {
    return this.atMs;
  }

  tell(by: number, fact: object): void {
    this.atMs += 1_000;
    const offsetMs = [0, 3_600_000, -7_200_000][by]!;
    this.seqs[by]! += 1;
    this.facts.push({
      id: `00000000-0000-7000-8000-${String((this.ids += 1)).padStart(12, '0')}`,
      lane: `00000000-0000-7000-8000-0000000000a${by}`,
      seq: this.seqs[by]!,
      atMs: this.atMs + offsetMs,
      offsetMs,
      v: JOB_VERSION,
      ...fact,
    } as JobFact);
  }

  wait(seconds: number): void {
    this.atMs += seconds * 1_000;
  }

  test(by: number, owed: Owed, verdict: 'pass' | 'fail' | 'cant-tell', accepted?: string): void {
    this.ids += 1;
    this.tell(by, {
      kind: 'retested',
      owedId: owed.id,
      logId: `00000000-0000-7000-8000-${String(900_000 + this.ids).padStart(12, '0')}`,
      ...(owed.check
        ? { factId: `00000000-0000-7000-8000-${String(800_000 + this.ids).padStart(12, '0')}` }
        : {}),
      testedAtMs: this.atMs,
      verdict,
      said: 'as tested',
      readings: [],
      ...(accepted === undefined ? {} : { accepted }),
    });
  }
}

function did(shop: Shop, { act: one, by }: { act: Act; by: number }, header: JobHeader): void {
  const { units } = header.made;
  const { state } = shop;
  switch (one.does) {
    case 'fit': {
      const unit = units[one.part % units.length]!;
      const parts = partsOf(unit);
      const at = { unitId: unit.id, partId: parts[one.part % parts.length]!.id };
      return shop.tell(by, {
        ...{ kind: 'fitted', at, repair: REPAIRS[one.repair % REPAIRS.length], was: {}, now: {} },
      });
    }
    case 'measure':
      return shop.tell(by, {
        ...{ kind: 'measure', measure: MEASURES[one.which % MEASURES.length], at: null, text: 'x' },
      });
    case 'undo': {
      const open = state.measures.filter(({ undone }) => !undone);
      const each = open[one.which % Math.max(1, open.length)];
      return each ? shop.tell(by, { kind: 'undone', measureId: each.measure.id }) : undefined;
    }
    case 'test': {
      const each = state.owed[one.which % Math.max(1, state.owed.length)];
      const verdict = (['pass', 'fail', 'cant-tell'] as const)[one.verdict % 3]!;
      return each ? shop.test(by, each, verdict) : undefined;
    }
    case 'accept': {
      const open = state.owed.filter(({ done }) => done?.verdict === 'cant-tell');
      const each = open[one.which % Math.max(1, open.length)];
      return each ? shop.test(2, each, 'cant-tell', 'Read it myself') : undefined;
    }
    case 'prove': {
      const at = { unitId: units[0]!.id, partId: 'foot-valve' };
      return shop.tell(by, { kind: 'proven', at, text: 'leaks', by: 'Soap' });
    }
    case 'reopen':
      return shop.tell(by, { kind: 'reopened', because: 'It still leaks' });
    case 'ask':
      return shop.tell(2, { kind: 'ask-release' });
  }
}

/** What stands against a release where no run of the vehicle fails and no other job holds it. */
const against = (state: JobState) => releaseBlocks(state, { failures: [], others: [] });

describe('a job, whatever was done in it', () => {
  it('names what is to be done, all of it can be, and then nothing stands against its release', () => {
    fc.assert(
      fc.property(history, ({ rig: n, failed, acts, shuffle }) => {
        const rig = RIGS[n]!;
        const header = jobHeader([...unitsOf(rig)], {
          failures: failed
            ? [
                {
                  ...{ runId: '00000000-0000-7000-8000-0000000000ef', key: 'figure:static-leak' },
                  ...{ title: 'Static leak', value: 6, critical: true },
                },
              ]
            : [],
        });
        const shop = new Shop(header);
        for (const each of acts) {
          shop.wait(each.waits);
          did(shop, each, header);
        }
        // In whatever order it arrives it comes to the same.
        const { state } = shop;
        const arrived = [...shop.facts].sort(
          (a, b) => ((a.seq * 7_919 + shuffle) % 97) - ((b.seq * 7_919 + shuffle) % 97),
        );
        expect(stateOfJob(header, inOrder(arrived)).owed).toEqual(state.owed);

        // Whoever goes on does just what it says.
        shop.tell(0, {
          kind: 'fitted',
          at: { unitId: rig.unit.id, partId: 'horn' },
          repair: 'remade',
          was: {},
          now: {},
        });
        for (const { measure, undone } of shop.state.measures) {
          if (!undone) shop.tell(1, { kind: 'undone', measureId: measure.id });
        }
        shop.wait(60);
        const left = shop.state.owed.filter(({ passed }) => !passed);
        if (against(shop.state).length > 0) expect(left.length).toBeGreaterThan(0);
        const steps = left.filter(({ stepId }) => stepId !== null);
        const run = retestRun(rig, steps, [header.id], { sets: ruleSets, defaultId: roadTest.id });
        if (steps.length > 0) expect(run?.missing).toEqual([]);
        for (const owed of left) {
          if (owed.check)
            expect([owed.id, checksOfRetest(catalogues.get(rig)!, owed).length > 0]).toEqual([
              ...[owed.id, true],
            ]);
          shop.test(0, owed, 'pass');
        }
        expect(against(shop.state)).toEqual([]);
        expect(shop.state.station).toBe('release');
      }),
      { numRuns: 1_000 },
    );
  });

  it('lets nothing go by a test from before its work, however often that is told', () => {
    fc.assert(
      fc.property(fc.nat({ max: 3_600 }), fc.nat({ max: 2 }), (secondsBefore, by) => {
        const header = jobHeader([truck.unit]);
        const shop = new Shop(header);
        shop.wait(7_200);
        const workMs = shop.nowMs + 1_000;
        shop.tell(0, {
          ...{ kind: 'fitted', at: { unitId: truck.unit.id, partId: 'foot-valve' } },
          ...{ repair: 'replaced', was: {}, now: {} },
        });
        const [owed] = shop.state.owed;
        shop.wait(600);
        shop.tell(by, {
          ...{ kind: 'retested', owedId: owed!.id, logId: header.id, verdict: 'pass', said: 'x' },
          ...{ readings: [], testedAtMs: workMs - 1 - secondsBefore * 1_000 },
        });
        expect(shop.state.owed[0]).toMatchObject({ done: null, passed: false });
      }),
      { numRuns: 100 },
    );
  });
});
