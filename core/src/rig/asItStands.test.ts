import { digest } from '../test/digest';
import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { unitOf } from '../test/walk';
import { partListOf, unlookedParts } from './partList';
import { optionalParts, partsOf } from './partsOf';
import { checkPlumbing } from './plumbing/checkPlumbing';
import { plumbingOf } from './plumbing/plumbingOf';
import { plumbingThatRuns } from './plumbing/plumbingThatRuns';
import { unitsOf } from './rigUnderTest';

/*
 * Parts and lines of units of every sort, each with a mark of all that is said of it: no proof that they are right,
 * which the trade's table and the twin give, but nothing of them changes unseen.
 */
const units = new Map(
  [unitOf('truck', '10'), ...Object.values(rigsOfEverySort).flatMap(unitsOf)].map((unit) => [
    `${unit.kind} ${unit.number}`,
    unit,
  ]),
);

describe.each([...units])('%s', (_, unit) => {
  it('has these parts, in this order', () => {
    const said = partsOf(unit).map((part) => `${part.id}: ${part.title} ${digest(part)}`);
    expect(said.join('\n')).toMatchSnapshot();
    expect(
      partListOf(unit)
        .map(({ id }) => id)
        .join(' '),
    ).toMatchSnapshot();
    expect(
      unlookedParts(unit)
        .map(({ id }) => id)
        .join(' '),
    ).toMatchSnapshot();
    expect(
      optionalParts(unit)
        .map((part) => digest(part))
        .join(' '),
    ).toMatchSnapshot();
  });

  it('has these lines, and these problems where one of them is taken off', () => {
    const { parts, lines, problems } = plumbingOf(unit);
    const without = lines.map((line) => {
      const found = checkPlumbing(
        unit,
        parts,
        lines.filter((each) => each !== line),
      );
      return `${line.id} ${digest(line)}: ${found.map(({ at, what }) => `${what} ${at}`).join(', ')}`;
    });
    expect([...without, ...problems.map(({ text }) => text)].join('\n')).toMatchSnapshot();
    expect(digest(plumbingThatRuns(unit))).toBe(digest(plumbingThatRuns({ ...unit, lines: [] })));
  });
});
