import type { LookItem } from '@keen-bleed/contract';
import { procedureFor } from '../procedure/procedureFor';
import { stepMakers } from '../procedure/stepMakers';
import { answeredIn } from '../run/findingsOf';
import { ruleSets } from '../standards/ruleSets';
import { semi } from '../test/rigsInAir';
import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { isCriticalFailure } from './critical';

/*
 * What every failing answer of every step does to the vehicle: it is held, or it is retested before the next test. By
 * hand [common practice, no source], and held to the steps themselves: a new answer has to find its place here.
 */
const HOLDS = `
couplers/way crossed
couplers/cocks wrong
couplers/last-supply none
couplers/last-service air
couplers/last-applied none
couplers/charged drag
cut-out/never climbs
warning/never silent
warning-parts/light no
warning-parts/buzzer no
pop-out/never park, trailer, both
park-stays/stays-out no
holding/park creeps, not-held
holding/tractor-alone creeps, not-held
holding/trailer-alone creeps, not-held
holding/hand-valve none
holding/breakaway slow, off
hand-brake-test/test creeps, not-held
hand-brake-test/springs-back stays
service-stop/stop long, pull-left, pull-right, no-stop
service-stop/distance longer
stop-lamp/never dark
tractor-protection/no-air no
tractor-protection/supply-shut no
trailer-alone/couplers no
trailer-alone/applies no
trailer-alone/emergency no
trailer-alone/antilock stays-on, not-fitted
breakaway-held/still-on no
ninth-stroke/ninth no
fail-supply/restored no
fail-primary/secondary no
fail-primary/warning no
fail-primary/lamps no
fail-primary/front no
fail-primary/restored no
fail-secondary/primary no
fail-secondary/warning no
fail-secondary/lamps no
fail-secondary/rear no
fail-secondary/restored no
anti-compounding/restored no
`;
const RETESTS = `
prepare/abs-lamp stays-on, never, some
prepare/abs-lamp-towed stays-on, never, not-fitted
prepare/abs-lamp-1 stays-on, never, not-fitted
prepare/abs-lamp-2 stays-on, never, not-fitted
prepare/abs-lamp-3 stays-on, never, not-fitted
drain/water water, milky, oil, rust, ice
drain/drains leak, stuck
by-age/adjusters manual, mixed
by-age/adjusters-1 manual, mixed
by-age/adjusters-2 manual, mixed
by-age/adjusters-3 manual, mixed
by-age/springs none
by-age/antilock-dash-lamp stays-on, never, not-fitted
couplers/hoses drags
couplers/dummy hang
couplers/seals perished
purge/never none, goes-on
gauge-comparison/primary outside
gauge-comparison/secondary outside
rebuild/never stays-on
safety-valve/blows-shuts no
fail-supply/primary no
fail-supply/secondary no
fail-primary/supply no
fail-primary/modulated 3, 2, 1, 0
fail-primary/release-once no
fail-secondary/park no
fail-secondary/release-once no
anti-compounding/follows no
anti-compounding/returns no
`;
/** Figures, by what a failing one does. */
const FIGURES_HOLD =
  'static-leak static-leak-other static-loss applied-leak applied-leak-other applied-loss warning pop-out-park pop-out-trailer stop-braking';

const table = (text: string) =>
  text
    .trim()
    .split('\n')
    .flatMap((line) => {
      const [key = '', ...values] = line.split(/ (.*)/);
      return (values[0] ?? '').split(', ').map((value) => `${key} ${value}`);
    });

/** Every failing answer of every step of every rig, however it came: as step, question and answer. */
function everyBadAnswer(): Map<string, { stepId: string; item: LookItem; holds: boolean }> {
  const found = new Map<string, { stepId: string; item: LookItem; holds: boolean }>();
  const all = stepMakers.map(({ id }) => id);
  for (const ruleSet of ruleSets) {
    for (const rig of [semi, ...Object.values(rigsOfEverySort)]) {
      const steps = stepMakers.flatMap(({ id, make }) => {
        const made = make({ rig, ruleSet });
        return made ? [{ ...made, id, required: true }] : [];
      });
      for (const step of steps) {
        for (const item of answeredIn(step)) {
          for (const { value, standing, holds = false } of item.options) {
            if (standing === 'bad')
              found.set(`${step.id}/${item.key} ${value}`, { stepId: step.id, item, holds });
          }
        }
      }
      // What the shipped sets ask is among it.
      for (const { id } of procedureFor(rig, ruleSet, []).steps) expect(all).toContain(id);
    }
  }
  return found;
}

describe('what a failing answer does', () => {
  const found = everyBadAnswer();
  const held = (of: string) => {
    const answer = found.get(of)!;
    return ruleSets.map((set) =>
      isCriticalFailure(set, `look:${answer.stepId}/${answer.item.key}`, answer.holds),
    );
  };

  it('stands in the table, every one of them', () => {
    const known = [...table(HOLDS), ...table(RETESTS)];
    expect([...found.keys()].filter((each) => !known.includes(each)).sort()).toEqual([]);
    expect(known.filter((each) => !found.has(each)).sort()).toEqual([]);
  });

  it.each(table(HOLDS))('%s: the vehicle is held, by every shipped rule set', (of) => {
    expect(held(of)).toEqual(ruleSets.map(() => true));
  });

  it.each(table(RETESTS))('%s: it is retested, and may go meanwhile', (of) => {
    expect(held(of)).toEqual(ruleSets.map(() => false));
  });

  it('of a figure is told by its step', () => {
    for (const figure of FIGURES_HOLD.split(' ')) {
      for (const set of ruleSets)
        expect([figure, isCriticalFailure(set, `figure:${figure}`)]).toEqual([figure, true]);
    }
    for (const figure of ['cut-out', 'cut-in', 'build-up-time', 'governor-cycle', 'purge-time'])
      for (const set of ruleSets) expect(isCriticalFailure(set, `figure:${figure}`)).toBe(false);
  });

  it('is a shop’s own to change, step by step', () => {
    const steps = [{ stepId: 'couplers', need: 'must' as const, critical: false }];
    expect(isCriticalFailure({ steps }, 'look:couplers/way', true)).toBe(false);
    const strict = [{ stepId: 'couplers', need: 'must' as const, critical: true }];
    expect(isCriticalFailure({ steps: strict }, 'look:couplers/seals')).toBe(true);
  });
});
