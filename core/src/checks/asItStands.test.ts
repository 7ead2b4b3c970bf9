import { digest } from '../test/digest';
import { semi, truck } from '../test/rigsInAir';
import { rigsOfEverySort } from '../test/rigsOfEverySort';
import { seededNumbers } from '../test/seededNumbers';
import { unitOf } from '../test/walk';
import { drawRig } from '../twin/spread/drawnRig';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { effectsOf } from '../twin/faults/fault';
import { faultsOf } from '../twin/faults/faultsOf';
import { Twin } from '../twin/twin';
import { checksOf } from './catalogue';
import { USUAL_SENSES, type Check, type CheckAnswer } from './check';
import { explainPart } from './explain';
import { doCheck, hasFault } from './observe';
import { judgeAnswer } from './retestChecks';
import { apart, doAll } from './tells';
import { figuresOfCheck, twinChecks, valvesOf } from './valves';

/*
 * Checks as they are done on a twin, by the usual senses and by perfect ones, what their figures come to, and what parts
 * are said to do: no proof that any of it is right, but none of it changes unseen.
 */
const say = (answer: CheckAnswer | undefined) => {
  if (!answer) return 'nothing';
  switch (answer.kind) {
    case 'number':
      return answer.value.toFixed(2);
    case 'points':
      return answer.points.map(([from, to]) => `${from.toFixed(1)}:${to.toFixed(1)}`).join(' ');
    case 'grade':
      return answer.grade;
    case 'choice':
      return answer.choice;
  }
};

const trailer: RigUnderTest = { unit: unitOf('trailer', '24'), towed: [] };
const WITH: readonly (readonly [name: string, rig: RigUnderTest, faults: readonly string[]])[] = [
  ['a sound trailer', trailer, []],
  ['a trailer with leaks', trailer, ['leak: #0 left', 'seat: #0 relay: inlet', 'water: #0 tank']],
  ['a truck with faults', truck, ['governor high', 'leak: rear left', 'seat: purge valve']],
  ['a dolly', rigsOfEverySort['a dolly alone']!, ['leak: #0 tank']],
];

describe.each(WITH)('on %s', (_, rig, ids) => {
  it('every check gives this to perfect senses, and this to usual ones', () => {
    const all = faultsOf(rig);
    const has = all.filter(({ id }) => ids.includes(id)).map((fault) => ({ fault, severity: 0.6 }));
    const checks = checksOf(rig, all).filter(({ onBench }) => !onBench);
    const perfect = doAll(rig, checks, has);
    const twin = new Twin(rig, { tanksPsi: 90 });
    twin.apply(has.flatMap(({ fault, severity }) => effectsOf(fault, severity)));
    const found = twin.save();
    const { between, normal } = seededNumbers(5);
    // One in so many: done by hand, each brings the rig into its state anew.
    const some = checks.filter((check, n) => n % 7 === 0 || check.doing.does === 'walk');
    const usual = new Map(
      some.map((check) => {
        twin.restore(found);
        const answer = doCheck(twin, check, {
          senses: USUAL_SENSES,
          chance: { even: () => between(0, 1), normal },
          faults: has.map(({ fault, severity }) => hasFault(fault, severity)),
        });
        return [check.id, answer];
      }),
    );
    expect(
      checks
        .map(
          ({ id }) =>
            `${id}: ${say(perfect.get(id))}${usual.has(id) ? `, ${say(usual.get(id))}` : ''}`,
        )
        .join('\n'),
    ).toMatchSnapshot();
  });
});

it('a drawn rig gives this', () => {
  const checks = checksOf(trailer, []).filter(({ onBench }) => !onBench);
  const { effects } = drawRig(trailer, 3);
  const given = doAll(trailer, checks, [], {}, effects);
  expect(checks.map(({ id }) => `${id}: ${say(given.get(id))}`).join('\n')).toMatchSnapshot();
});

/** Answers a check may be given, from good to bad. */
function answersTo({ answer }: Check): readonly CheckAnswer[] {
  switch (answer.kind) {
    case 'number':
      return [0, 0.3, 2, 30, 62, 105, 150].map((value) => ({ kind: 'number', value }));
    case 'points': {
      const line = (by: number, crack: number) =>
        [5, 10, 20, 40, 60, 90].map((x) => [x, Math.max(0, x - crack) * by] as const);
      const back = [60, 30, 10].map((x) => [x, x + 6] as const);
      return [
        { kind: 'points', points: line(1, 0) },
        { kind: 'points', points: line(0.8, 7) },
        { kind: 'points', points: [...line(1, 3), ...back] },
        { kind: 'points', points: line(1, 0).slice(0, 2), compared: true },
      ] as CheckAnswer[];
    }
    case 'grade':
      return answer.grades.map(({ id }) => ({ kind: 'grade', grade: id }));
    case 'choice':
      return answer.choices.map(({ id }) => ({ kind: 'choice', choice: id }));
  }
}

describe('what answers come to', () => {
  it.each([
    ['a tractor and its trailer', semi],
    [
      'a truck with numbered ports',
      rigsOfEverySort['a truck with numbered ports and all there is']!,
    ],
  ])('on %s', (_, rig) => {
    const checks = checksOf(rig, []);
    const units = [rig.unit, ...rig.towed];
    const stated = units.map((unit) => ({
      ...unit,
      parts: ['rear-relay', 'relay', 'foot-valve', 'safety-valve'].map((partId) => ({
        ...{ partId, standing: 'fitted' as const, setPsi: 5, foundAtMs: 1 },
      })),
    }));
    const lines = checks.map((check) => {
      const [sound] = answersTo(check);
      const made = answersTo(check).map((answer) => [
        figuresOfCheck(check, answer, units[check.unit]),
        figuresOfCheck(check, answer, stated[check.unit]),
        figuresOfCheck(check, answer, undefined),
        judgeAnswer(check, answer, sound!),
        apart(check, answer, sound!),
      ]);
      return `${check.id} ${digest(made)}`;
    });
    expect(lines.join('\n')).toMatchSnapshot();
    const valves = valvesOf(rig, checks);
    const twins = valves.flatMap((valve) =>
      valve.checks.map((check) =>
        twinChecks(valves, valve, check)
          .map(({ id }) => id)
          .join(' '),
      ),
    );
    expect(twins.filter((each) => each !== '').join('\n')).toMatchSnapshot();
  });
});

it('parts do this', () => {
  const at = (rig: RigUnderTest, unit: number, ...parts: string[]) =>
    parts.map((part) => {
      const { steps, lag } = explainPart(rig, unit, part);
      return [
        part,
        ...steps.map(
          ({ title, state, ports }) =>
            `${title} (${state ?? ''}): ${ports.map((port) => `${port.title}/${port.number ?? ''} ${port.psi.toFixed(1)}`).join(', ')}`,
        ),
        lag ? `${lag.withIt.toFixed(2)} s with it, ${lag.without.toFixed(2)} s without` : '',
      ].join('\n');
    });
  const said = [
    ...at(semi, 0, 'governor', 'park-control', 'primary-tank', 'tractor-protection', 'foot-valve'),
    ...at(semi, 1, 'relay', 'no-such-part'),
  ];
  expect(said.join('\n\n')).toMatchSnapshot();
  expect(explainPart(semi, 7, 'relay')).toEqual({ steps: [], lag: null });
});
