import { madeUpTable } from '../test/madeUpTable';
import { semi, truck } from '../test/rigsInAir';
import type { RigUnderTest } from '../rig/rigUnderTest';
import {
  complaintsLike,
  complaints,
  pointsAt,
  saysOf,
  faultChances,
  meaningsOf,
  nextCheck,
  rankingOf,
  RigModel,
  sayHowBad,
  Weighing,
  whyOf,
  type Evidence,
} from './index';
import { shownBetween } from './interpolated';

/*
 * What is made of evidence on made-up tables of what a rig would show: chances, what is asked next, what each answer
 * would mean, and why. No proof that any of it is right, which the closed forms beside and the simulated worlds give:
 * no term of it is lost or turned round unseen. Read the difference before you keep it.
 */
function modelOf(rig: RigUnderTest, seed: number): RigModel {
  const model = new RigModel(rig, { channels: true });
  model.learn(madeUpTable(model, seed));
  return model;
}
const rigs: Readonly<Record<string, RigModel>> = {
  'a truck': modelOf(truck, 3),
  'a tractor and its trailer': modelOf(semi, 4),
};

const number = (of: number) => of.toFixed(3);
const at = { atMs: 2 };

/** Evidence of every kind, alone and together. */
function cases(model: RigModel): Record<string, readonly Evidence[]> {
  const of = (kind: string, n = 0) => model.checks.filter(({ answer }) => answer.kind === kind)[n]!;
  const [fault, other] = [model.faults[4]!, model.faults[9]!];
  const run: Evidence = {
    ...{ kind: 'run', ...at },
    figures: {
      ...{ 'build-up': 55, 'cut-out': 7, 'cut-in': 2, 'static primary': 20, warning: 4.5 },
      ...{ 'applied secondary': 40, red: 3, 'static supply': 30, 'lamp light': 0, 'lamp off': 0 },
    },
    doubt: { 'static primary': 0.6, 'cut-out': 0.4 },
  };
  const answered = (kind: string, n: number, answer: object): Evidence =>
    ({ kind: 'answer', ...at, checkId: of(kind, n).id, answer: { kind, ...answer } }) as Evidence;
  const options = (kind: 'grade' | 'choice', n: number) => {
    const { answer } = of(kind, n);
    return 'grades' in answer ? answer.grades : 'choices' in answer ? answer.choices : [];
  };
  const numbers = [0, 1, 2].map((n) => answered('number', n, { value: 30 + 25 * n }));
  const grades = [0, 3].map((n) => answered('grade', n, { grade: options('grade', n).at(-1)!.id }));
  const choices = [0, 2].map((n) =>
    answered('choice', n, { choice: options('choice', n).at(-1)!.id }),
  );
  return {
    nothing: [],
    ...Object.fromEntries(
      complaints.map(({ id }) => [id, [{ kind: 'complaint', ...at, complaintId: id } as const]]),
    ),
    'a run': [run],
    'a run beside what is usual here': [
      { ...run, usual: { figures: { 'build-up': 40, 'static primary': 22 }, runs: 3 } },
    ],
    'a run by a checked gauge, the engine at some turns': [
      { ...run, gaugeChecked: true, turnsUnknown: true },
    ],
    'a failed run': [run, { kind: 'failed', ...at }],
    'numbers of checks': numbers,
    'points of a curve': [
      answered('points', 0, {
        points: [
          [10, 3],
          [30, 18],
          [60, 44],
        ],
      }),
    ],
    'points of a curve on its way up and down': [
      answered('points', 0, {
        points: [
          [10, 8],
          [30, 26],
          [60, 52],
          [30, 35],
          [10, 14],
        ],
      }),
    ],
    'grades of checks': grades,
    'choices of checks': choices,
    'a look': [{ kind: 'look', ...at, key: 'look:couplers/seals' }],
    'a name': [{ kind: 'named', ...at, fault: fault.id }],
    'everything at once': [run, { kind: 'failed', ...at }, ...numbers, ...grades, ...choices],
    'found again after a repair': [
      ...grades,
      { kind: 'repair', atMs: 5, unit: 0, part: of('grade').part },
      { ...grades[0]!, atMs: 6 },
    ],
    'two names': [
      { kind: 'named', ...at, fault: fault.id },
      { kind: 'named', ...at, fault: other.id },
    ],
  };
}

function said(weighing: Weighing): string {
  const ranking = rankingOf(weighing);
  const { suspects, sound, reader, unlisted, two } = ranking;
  const next = nextCheck(weighing, {}, ranking);
  const [first] = suspects;
  const why = whyOf(weighing, first!.faults[0]!, first!.severity, 'psi');
  return [
    ...suspects
      .slice(0, 8)
      .map(({ faults, chance, severity }) =>
        [number(chance), number(severity), ...faults.map(({ id }) => id)].join(' '),
      ),
    `sound ${number(sound)}, reader ${number(reader)}, unlisted ${number(unlisted)}, two ${number(two.chance)}: ${two.faults.map(({ id }) => id).join(' + ')}`,
    next.next === 'check'
      ? [next.best, ...next.others]
          .map(({ check, gain, minutes }) => `ask ${check.id} ${number(gain)} in ${minutes}`)
          .join('\n')
      : JSON.stringify(next),
    ...(next.next === 'check'
      ? meaningsOf(weighing, next.best.check, ranking).map(
          ({ answer, group, chance }) =>
            `means ${'option' in answer ? answer.option : number(answer.mean)}: ${group} ${number(chance)}`,
        )
      : []),
    ...why.pros.map((each) => `for: ${each}`),
    ...why.cons.map((each) => `against: ${each}`),
    ...why.needles.map(
      ({ title, read, would, sound: { low, high } }) =>
        `${title} ${number(read)} in ${number(low)} to ${number(high)}, would be ${number(would)}`,
    ),
  ].join('\n');
}

/** On the longer rig what hangs on it alone. */
const LONGER = ['nothing', 'trailer-drags', 'a run', 'numbers of checks', 'everything at once'];

describe.each(Object.entries(rigs))('on %s', (rig, model) => {
  const all = Object.entries(cases(model));
  it.each(rig === 'a truck' ? all : all.filter(([name]) => LONGER.includes(name)))(
    '%s is made this of',
    (_name, evidence) => {
      expect(said(new Weighing(model, evidence))).toMatchSnapshot();
    },
  );

  it('a state the rig stands in, checks that cannot be made, own repairs and a cold yard count', () => {
    const evidence = cases(model)['a run']!;
    const weighing = new Weighing(model, evidence);
    const best = nextCheck(weighing);
    const first = best.next === 'check' ? best.best.check : model.checks[0]!;
    const next = nextCheck(weighing, { state: first.state.id, without: [first.id] });
    expect(
      next.next === 'check'
        ? [next.best, ...next.others].map(({ check, minutes }) => `${check.id} ${minutes}`)
        : next,
    ).toMatchSnapshot();
    const known = new Weighing(model, evidence, {
      repairs: { [model.faults[0]!.id]: 5, [model.faults[7]!.id]: 2 },
    });
    const chances = [...faultChances(known).values()].sort((a, b) => b.chance - a.chance);
    expect(
      chances.slice(0, 12).map(({ fault, chance }) => `${fault.id} ${number(chance)}`),
    ).toMatchSnapshot();
  });
});

it('a fault between two severities is shown so, and called so', () => {
  const model = rigs['a truck']!;
  const fault = model.faults[2]!;
  const shown = [0.1, 0.25, 0.4, 0.5, 0.8, 0.93, 1].map((severity) => {
    const { numbers, unsure, lamps } = shownBetween(model, fault, severity);
    return [
      severity,
      numbers.map((each) => each?.toFixed(3)).join(' '),
      unsure?.map((each) => each.toFixed(3)).join(' '),
      JSON.stringify(lamps),
    ].join(' | ');
  });
  expect(shown.join('\n')).toMatchSnapshot();
  expect(
    ['leak: primary tank', 'seat: purge valve', 'governor high'].flatMap((id) =>
      [0.1, 0.34, 0.35, 0.69, 0.7, 1].map((severity) => sayHowBad({ id }, severity)),
    ),
  ).toMatchSnapshot();
});

describe('the tables by heart', () => {
  it.each(Object.entries(rigs))('on %s complaints are said of these faults', (_, model) => {
    const lines = complaints.map((complaint) => {
      const said = model.faults.flatMap((fault) => {
        const often = saysOf(complaint, fault, 0.8);
        return often > saysOf(complaint, null) ? [`${fault.id} ${number(often)}`] : [];
      });
      return `${complaint.id}: ${said.join(', ')}`;
    });
    expect(lines.join('\n')).toMatchSnapshot();
  });

  it.each(Object.entries(rigs))('on %s failures point at these', (_, model) => {
    const keys = [
      ...['build-up-time', 'cut-out', 'cut-in', 'governor-cycle', 'static-leak', 'applied-leak'],
      ...['warning', 'pop-out-park', 'pop-out-trailer', 'trailer-supply', 'stop-lamp'],
    ].map((figure) => `figure:${figure}`);
    const looks = ['couplers', 'holding', 'prepare', 'breakaway-hold', 'trailer-alone'];
    const items = ['seals', 'way', 'last-service', 'charged', 'park', 'stop', 'water', 'drains'];
    const lines = [
      ...keys,
      ...looks.flatMap((step) => items.map((item) => `look:${step}/${item}`)),
    ].map((key) => {
      const found = pointsAt(key, model.faults, model.checks);
      if (!found) return `${key}: nothing`;
      const { symptom, suspects, checks } = found;
      return `${key}: ${symptom.id}: ${suspects.map(({ id }) => id).join(', ')}: ${checks.map(({ id }) => id).join(', ')}`;
    });
    expect(lines.join('\n')).toMatchSnapshot();
  });

  it('complaints are found by these words', () => {
    const words = [
      '  HISSING ',
      'hiss',
      'oil',
      'cold',
      'late',
      'drag',
      'slow',
      'lamp',
      'pull',
      'buzz',
      '',
    ];
    expect(
      words
        .map(
          (each) =>
            `${each}: ${complaintsLike(each)
              .map(({ id }) => id)
              .join(' ')}`,
        )
        .join('\n'),
    ).toMatchSnapshot();
    expect(
      complaints.map(({ id, title, also }) => `${id}: ${title}: ${also.join(', ')}`).join('\n'),
    ).toMatchSnapshot();
  });
});
