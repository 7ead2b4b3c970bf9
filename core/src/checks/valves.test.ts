import { besideOther, judgeFigure, type BenchFigure } from '../bench/pairs';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { semi, truck } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import { faultsOf } from '../twin/faults/faultsOf';
import { checksOf } from './catalogue';
import type { CheckAnswer } from './check';
import { doAll } from './tells';
import { figuresOfCheck, twinChecks, valvesOf } from './valves';

/* The twin stands on both sides here: these prove that a fault put into it comes out as a figure, not how a real valve behaves. */

const numbered: RigUnderTest = {
  unit: { ...unitOf('truck', '18'), ports: 'numbers' },
  towed: [],
};

function readAll(rig: RigUnderTest, faultId: string | null = null) {
  const valves = valvesOf(rig, checksOf(rig, []));
  const own = valves.flatMap(({ checks }) => checks);
  const fault = faultId === null ? null : faultsOf(rig).find(({ id }) => id === faultId);
  if (fault === undefined) throw new Error(`no fault ${faultId}`);
  const answers = doAll(rig, own, fault ? [{ fault, severity: 0.9 }] : []);
  return { valves, own, answers };
}

/** Gauges were compared, as a careful hand does. */
const comparedToo = (answer: CheckAnswer): CheckAnswer =>
  answer.kind === 'points' ? { ...answer, compared: true } : answer;

function figuresOf(rig: RigUnderTest, faultId: string | null = null): Map<string, BenchFigure> {
  const { own, answers } = readAll(rig, faultId);
  return new Map(
    own.flatMap((check) => {
      const figures = figuresOfCheck(check, comparedToo(answers.get(check.id)!), undefined);
      if (figures === null || 'wants' in figures) return [];
      return figures.map((figure) => [`${check.id} ${figure.id}`, figure] as const);
    }),
  );
}

const failing = (figures: ReadonlyMap<string, BenchFigure>): string[] =>
  [...figures].flatMap(([id, figure]) => (judgeFigure(figure) === 'fail' ? [id] : []));

describe('the valves of a rig on the bench', () => {
  it.each([
    ['a truck', truck],
    ['a tractor and its trailer', semi],
    ['a truck with numbered ports', numbered],
    ['a trailer alone', { unit: unitOf('trailer', '22'), towed: [] }],
  ])('%s that is sound fails nowhere, and every reading comes to a figure', (_, rig) => {
    const { own, answers } = readAll(rig);
    expect(own.length).toBeGreaterThan(3);
    for (const check of own) {
      const figures = figuresOfCheck(check, comparedToo(answers.get(check.id)!), undefined);
      expect([check.title, figures === null || 'wants' in figures ? figures : 'figures']).toEqual([
        check.title,
        'figures',
      ]);
    }
    expect(failing(figuresOf(rig))).toEqual([]);
  });

  it.each([
    ['primary check', '0/compare/supply tank/primary tank/holds lost'],
    ['anti-compounding missing', '0/compare/rear delivery/spring line/springs behind'],
    ['modulating valve dead', '0/compare/front signal/spring line/modulates effect'],
    ['dash double check stuck', '0/compare/secondary tank/dash feed/passes apart'],
    ['park valve high', '0/read/park valve switches'],
    ['safety valve low', '0/read/safety valve/opens relief'],
    ['governor high', '0/read/governor/out governor out'],
  ])('with %s the valve’s own reading fails', (faultId, figure) => {
    const ids = faultsOf(truck).map(({ id }) => id);
    expect(ids).toContain(faultId);
    expect(failing(figuresOf(truck, faultId))).toContain(figure);
  });

  it('with a protection valve that does not shut, air comes through with red pulled', () => {
    expect(failing(figuresOf(semi, 'seat: tractor protection'))).toContain(
      '0/compare/trailer signal/trailer service line/red out through',
    );
  });

  it('a relay that opens late stands out beside the one on the other axle, which does not beside it', () => {
    const late = readAll(semi, 'rear relay crack');
    const sound = readAll(semi);
    const rear = late.valves.find(({ part }) => part === 'rear-relay')!;
    const curve = rear.checks[0]!;
    const [twin] = twinChecks(late.valves, rear, curve);
    expect(twin).toMatchObject({ unit: 1, part: 'relay' });
    const figures = (from: typeof late, check: typeof curve) => {
      const found = figuresOfCheck(check, comparedToo(from.answers.get(check.id)!), undefined);
      if (found === null || 'wants' in found) throw new Error(check.title);
      return found;
    };
    const crack = (from: typeof late) =>
      besideOther(figures(from, curve), figures(from, twin!)).find(({ id }) => id === 'crack');
    expect(crack(late)?.is).toBe('unlike');
    expect(crack(sound)?.is).not.toBe('unlike');
  });

  it('holds a valve to what was read off it', () => {
    const check = checksOf(truck, []).find(({ id }) => id === '0/read/park valve')!;
    const unit = {
      ...truck.unit,
      parts: [{ partId: 'park-control', standing: 'fitted', setPsi: 30, foundAtMs: 1 }],
    } as typeof truck.unit;
    const [figure] = figuresOfCheck(check, { kind: 'number', value: 40 }, unit) as BenchFigure[];
    expect(figure?.limit).toEqual({ least: 27, most: 33, from: 'what it is made for' });
    expect(judgeFigure(figure!)).toBe('fail');
    const [usual] = figuresOfCheck(
      check,
      { kind: 'number', value: 40 },
      undefined,
    ) as BenchFigure[];
    expect(judgeFigure(usual!)).toBe('pass');
  });

  it('suspects neither propose nor weigh what is done on the bench alone', () => {
    const bench = checksOf(truck, []).filter(({ onBench }) => onBench);
    expect(bench.length).toBeGreaterThan(10);
    expect(new Set(bench.map(({ id }) => id)).size).toBe(bench.length);
    const all = checksOf(truck, []).map(({ id }) => id);
    expect(new Set(all).size).toBe(all.length);
  });
});
