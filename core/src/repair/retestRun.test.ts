import type { RuleSet } from '@keen-bleed/contract';
import { procedureFor } from '../procedure/procedureFor';
import { inService } from '../standards/inService';
import { numberedPorts } from '../standards/numberedPorts';
import { roadTest } from '../standards/roadTest';
import { ruleSets } from '../standards/ruleSets';
import { partsOf } from '../rig/partsOf';
import { unitOf } from '../test/walk';
import { retestsOf } from './retests';
import { retestRun, type RetestRun } from './retestRun';

const truck = unitOf('truck', '10');
const tractor = unitOf('tractor', '11');
const trailer = unitOf('trailer', '22');
const shop = { sets: ruleSets, defaultId: roadTest.id };
const owed = (stepId: string | null, minutes = 4) => ({ title: `Owed ${stepId}`, minutes, stepId });
const stepsOf = ({ on }: RetestRun) =>
  procedureFor(on, on.ruleSet, on.leftOut, { also: on.also }).steps.map(({ id }) => id);
const run = (
  stepIds: readonly string[],
  rig = { unit: truck, towed: [] as (typeof truck)[] },
  id?: string,
) =>
  retestRun(
    rig,
    stepIds.map((each) => owed(each)),
    ['job'],
    shop,
    id ?? null,
  )!;

describe('a run of what is owed', () => {
  it('asks for that and what it needs, no more: chocks, and air where a step needs it', () => {
    expect(stepsOf(run(['static-hold', 'service-stop']))).toEqual([
      ...['prepare', 'fill', 'static-hold', 'service-stop'],
    ]);
    // The governor's own cut-out charges it.
    expect(stepsOf(run(['cut-out', 'static-hold']))).toEqual(['prepare', 'cut-out', 'static-hold']);
    // After the fall there is no air for a tug.
    expect(stepsOf(run(['pop-out', 'holding']))).toEqual([
      ...['prepare', 'fill', 'pop-out', 'rebuild', 'holding'],
    ]);
  });

  it('says one duration: getting ready, charging, and what is owed', () => {
    expect(run(['static-hold', 'service-stop']).minutes).toBe(1 + 2 + 4 + 4);
    expect(run(['cut-out']).minutes).toBe(1 + 4);
  });

  it('goes by the rule set of the failure, and asks beside it what that leaves out', () => {
    const made = run(['static-hold', 'cycle', 'stop-lamp'], undefined, inService.id);
    expect(made.on.ruleSet.id).toBe(inService.id);
    expect(stepsOf(made)).toEqual(['prepare', 'cycle', 'fill', 'static-hold', 'stop-lamp']);
    // The road test switches both off.
    const road = run(['cycle', 'stop-lamp']);
    expect(road.on.ruleSet.id).toBe(roadTest.id);
    expect(stepsOf(road)).toEqual(expect.arrayContaining(['cycle', 'stop-lamp']));
    // One that is gone gives way to the shop's own.
    expect(run(['static-hold'], undefined, 'gone').on.ruleSet.id).toBe(roadTest.id);
  });

  it('has the stop of a shop’s old copy, which knew none', () => {
    const old: RuleSet = {
      ...roadTest,
      id: 'old',
      basedOn: roadTest.id,
      steps: roadTest.steps.filter(({ stepId }) => stepId !== 'service-stop'),
    };
    const made = retestRun({ unit: truck, towed: [] }, [owed('service-stop')], ['job'], {
      sets: [old],
      defaultId: old.id,
    })!;
    expect(stepsOf(made)).toEqual(['prepare', 'fill', 'service-stop']);
  });

  it('names what the rig cannot do as it stands: a trailer’s stop wants a tractor', () => {
    const alone = run(['static-hold', 'service-stop'], { unit: trailer, towed: [] });
    expect(alone.missing).toEqual(['Owed service-stop']);
    expect(stepsOf(alone)).toEqual(['prepare', 'charge', 'static-hold']);
    const coupled = run(['static-hold', 'service-stop'], { unit: tractor, towed: [trailer] });
    expect(coupled.missing).toEqual([]);
  });

  it('is none where nothing owed is a step', () => {
    expect(retestRun({ unit: truck, towed: [] }, [owed(null)], [], shop)).toBeNull();
  });

  it('can do every step that any part’s work owes, coupled, by every rule set of its school', () => {
    const rigs = [
      { units: [truck], sets: [roadTest, inService] },
      { units: [tractor, trailer], sets: [roadTest, inService] },
      {
        units: [{ ...truck, ports: 'numbers' as const }],
        sets: [numberedPorts],
      },
    ];
    for (const { units, sets } of rigs) {
      for (const unit of units) {
        for (const { id } of partsOf(unit)) {
          const retests = retestsOf({
            units,
            at: { unitId: unit.id, partId: id },
            repair: 'replaced',
          }).filter(({ stepId }) => stepId !== null);
          for (const { id: setId } of sets) {
            const [front, ...towed] = units;
            const made = retestRun({ unit: front!, towed }, retests, ['job'], shop, setId)!;
            expect([id, setId, made.missing]).toEqual([id, setId, []]);
            expect(made.on.ruleSet.id).toBe(setId);
          }
        }
      }
    }
  });
});
