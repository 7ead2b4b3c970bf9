import type { RunHeader } from '@keen-bleed/contract';
import truck from '../../golden/records/run-0.3.0-truck.json';
import rig from '../../golden/records/run-0.3.0-rig.json';
import numbers from '../../golden/records/run-0.3.0-numbers.json';
import truck4 from '../../golden/records/run-0.4.0-truck.json';
import rig4 from '../../golden/records/run-0.4.0-rig.json';
import numbers4 from '../../golden/records/run-0.4.0-numbers.json';
import { checkAsked } from './checkAsked';

describe('what an earlier version asked', () => {
  it.each([
    ['a truck', truck],
    ['a rig', rig],
    ['numbered ports', numbers],
  ])('of %s is still taken, made by the rule set as it was then', (_title, golden) => {
    const { made, coreVersion } = golden.header as unknown as RunHeader;
    expect(coreVersion).toBe('0.3.0');
    expect(checkAsked(made, coreVersion)).toBeNull();
  });

  it('is refused with a required step left out, or by a version nobody knows', () => {
    const { made } = truck.header as unknown as RunHeader;
    const short = { ...made, steps: made.steps.filter(({ id }) => id !== 'static-hold') };
    expect(checkAsked(short, '0.3.0')?.message).toContain('Brakes released');
    expect(checkAsked(made, '9.9.9')?.message).toContain('does not know');
  });

  it('is refused where any answer stands otherwise, is made up, or a hold is shorter than it was', () => {
    for (const golden of [truck, rig, numbers, truck4, rig4, numbers4]) {
      const { made, coreVersion } = golden.header as unknown as RunHeader;
      expect(checkAsked(made, coreVersion)).toBeNull();
      const words = JSON.stringify(made.steps);
      const wrong = (from: RegExp, to: string) => {
        const steps = JSON.parse(words.replace(from, to)) as RunHeader['made']['steps'];
        expect(JSON.stringify(steps)).not.toBe(words);
        return checkAsked({ ...made, steps }, coreVersion)?.message;
      };
      expect(wrong(/"standing":"bad"/, '"standing":"good"')).toContain('does not take its answers');
      expect(wrong(/"standing":"bad"/g, '"standing":"noted"')).toContain(coreVersion);
      expect(wrong(/"value":"[^"]*","title"/, '"value":"made-up","title"')).toContain(
        'does not take',
      );
      expect(wrong(/"seconds":\d+/, '"seconds":1')).toContain('does not take');
      // Its words may differ.
      expect(
        wrong(/"title":"Couplers|"title":"Tug|"title":"Build up/, '"title":"Otherwise'),
      ).toBeUndefined();
    }
  });

  it('is refused where a figure of a step is reckoned otherwise, however deep that lies', () => {
    const { made } = truck.header as unknown as RunHeader;
    const changed = (of: object) => ({
      ...made,
      steps: made.steps.map((step) =>
        step.id === 'build-up'
          ? { ...step, reckon: step.reckon.map((each) => ({ ...each, ...of })) }
          : step,
      ),
    });
    expect(checkAsked(changed({}), '0.3.0')).toBeNull();
    expect(checkAsked(changed({ spanPsi: 30 }), '0.3.0')).not.toBeNull();
    expect(checkAsked(changed({ more: { deep: [1] } }), '0.3.0')).not.toBeNull();
    // What is not there is not there, said or not.
    expect(checkAsked(changed({ more: undefined }), '0.3.0')).toBeNull();
  });
});
