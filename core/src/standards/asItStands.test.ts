import { meaningOf } from '../reading/meaningOf';
import { figureTitles } from '../reading/figureWords';
import { couplingOf } from '../rig/rigUnderTest';
import { rigsOfEverySort, switchedOver } from '../test/rigsOfEverySort';
import { unitOf } from '../test/walk';
import { limitFor } from './limitFor';
import { ruleSets } from './ruleSets';
import { switchInfos } from './switches';
import { usualLooks } from './usualLooks';

/*
 * Every limit that ships, with its source, and what a figure outside it is said to mean: no proof that they are right,
 * which the standards named beside them give, but none of them changes unseen.
 */
const LEVELS = [-1, 1_000];

describe.each([...ruleSets, switchedOver].map((set) => [set.title, set] as const))(
  '%s',
  (_, set) => {
    it('has these limits and steps', () => {
      expect(set.limits.map((limit) => JSON.stringify(limit)).join('\n')).toMatchSnapshot();
      expect(set.steps.map((step) => JSON.stringify(step)).join('\n')).toMatchSnapshot();
      expect(set.switches).toMatchSnapshot();
    });
  },
);

it('a maker’s figures stand before those of the rule set, each for its own', () => {
  const makerLimits = {
    ...{ buildUpMaxS: 61, cutOutMinPsi: 111, cutOutMaxPsi: 133, cutInMinPsi: 92 },
    ...{ staticLeakMaxPsiPerMin: 1.1, appliedLeakMaxPsiPerMin: 2.2, warningMinPsi: 66 },
  };
  const figures = Object.keys(figureTitles) as (keyof typeof figureTitles)[];
  const trailer = unitOf('trailer', '22');
  const of = (limits: object, towed = [trailer].slice(1)) => {
    const unit = unitOf('truck', '10', { makerLimits: limits });
    return figures.flatMap((figure) => {
      const limit = limitFor(figure, { unit, towed }, ruleSets[0]!);
      return limit ? [`${figure} ${JSON.stringify(limit)}`] : [];
    });
  };
  expect(of(makerLimits).join('\n')).toMatchSnapshot();
  expect(of(makerLimits, [trailer]).join('\n')).toMatchSnapshot();
  const plain = of({});
  // Each by itself changes the limit that it is of, and no other.
  const changed = Object.entries(makerLimits).map(([key, value]) => {
    const now = of({ [key]: value });
    return `${key}: ${now
      .filter((line) => !plain.includes(line))
      .map((line) => line.split(' ')[0])
      .join(' ')}`;
  });
  expect(changed.join('\n')).toMatchSnapshot();
  expect(couplingOf(Object.values(rigsOfEverySort)[0]!)).toBe('alone');
});

it('a figure outside its limit means this', () => {
  const lines = Object.keys(figureTitles).map((figure) =>
    LEVELS.map((value) => meaningOf(figure as never, value, { min: 0, max: 100 }) ?? 'none').join(
      ' | ',
    ),
  );
  expect(lines.join('\n')).toMatchSnapshot();
  expect(meaningOf('cut-out', 50, { min: 0, max: 100 })).toBeNull();
  expect(meaningOf('cut-out', 100, { min: 0, max: 100 })).toBeNull();
  expect(meaningOf('cut-out', 0, { min: 0, max: 100 })).toBeNull();
  expect(meaningOf('cut-out', 5_000, { min: 0, max: null })).toBeNull();
  expect(meaningOf('cut-out', -5, { min: null, max: 100 })).toBeNull();
});

it('these are looked at by the way, and these are switched', () => {
  expect(usualLooks).toMatchSnapshot();
  expect(switchInfos).toMatchSnapshot();
});
