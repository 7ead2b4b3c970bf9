import { digest } from '../test/digest';
import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { unitOf } from '../test/walk';
import { partListOf, unlookedParts } from './partList';
import { optionalParts, partsOf } from './partsOf';
import { checkPlumbing } from './plumbing/checkPlumbing';
import { plumbingOf } from './plumbing/plumbingOf';
import { plumbingThatRuns } from './plumbing/plumbingThatRuns';
import { portsOf } from './plumbing/ports';
import { variantsOf } from './plumbing/variants';
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
    expect(
      parts
        .map((part) => {
          const { place, wheel } = part;
          const ports = portsOf(part.role).map(({ id, number }) => `${id}/${number ?? ''}`);
          return `${part.id} ${place.row},${place.column} ${wheel ? digest(wheel) : ''} ${ports.join(' ')} ${variantsOf(part).length}`;
        })
        .join('\n'),
    ).toMatchSnapshot();
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

describe.each(
  [...units].filter(([name]) => /(truck 10|truck 32|tractor 36|trailer 43)/.test(name)),
)('%s, as it was found', (_, unit) => {
  const usual = plumbingOf(unit);
  const found = (partId: string, change: object) => ({
    ...unit,
    parts: [{ partId, standing: 'fitted' as const, foundAtMs: 1, ...change }],
  });
  const line = (change: object) => ({
    ...unit,
    lines: [{ lineId: 'x', standing: 'fitted' as const, foundAtMs: 1, ...change }],
  });
  const said = (each: typeof unit) => {
    const { parts, lines, problems } = plumbingOf(each);
    return `${digest([parts, lines])} ${digest(plumbingThatRuns(each))}: ${problems.map(({ at, what, text }) => `${what} ${at} ${digest(text)}`).join(', ')}`;
  };

  it('without each part, and with each of another kind', () => {
    const all = [...usual.parts, ...optionalParts(unit)];
    const lines = all.map(({ id, role }) =>
      [
        id,
        said(found(id, { standing: 'not-fitted' })),
        said(found(id, { standing: 'fitted' })),
        ...variantsOf({ id, role }).map((variant) => said(found(id, { variant: variant.id }))),
      ].join(' | '),
    );
    expect(lines.join('\n')).toMatchSnapshot();
  });

  it('with each line taken off, put on the next port, on a port that is not there, on its own beginning', () => {
    const lines = usual.lines.map(({ id, from, to }, n) => {
      const next = usual.lines[(n + 1) % usual.lines.length]!;
      const at = ({ part, port }: typeof from) => ({ partId: part, port });
      const begin = { lineId: id, from: at(from) };
      return [
        id,
        said(line({ lineId: id, standing: 'not-fitted' })),
        said(line({ ...begin, to: at(next.to) })),
        said(line({ ...begin, to: { partId: to.part, port: 'no-such-port' } })),
        said(line({ ...begin, to: { partId: 'no-such-part', port: 'in' } })),
        said(line({ ...begin, to: at(from), boreMm: 6, moves: true })),
      ].join(' | ');
    });
    expect(lines.join('\n')).toMatchSnapshot();
    const [first, , third] = usual.lines;
    const added = { from: { partId: first!.from.part, port: first!.from.port } };
    expect(
      [
        said(line({ ...added, to: { partId: third!.to.part, port: third!.to.port } })),
        said(line({ ...added, to: { partId: third!.to.part, port: 'gone' }, colour: 'service' })),
        said(line({ ...added, standing: 'not-fitted' })),
        said(line(added)),
      ].join('\n'),
    ).toMatchSnapshot();
  });
});
