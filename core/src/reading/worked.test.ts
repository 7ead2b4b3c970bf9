import type { FigureId, RuleSet, Unit } from '@keen-bleed/contract';
import { padNow } from '../run/awaiting';
import { isAnswered } from '../run/findingsOf';
import { newUnitDraft, usualGauge } from '../rig/newUnit';
import { inService } from '../standards/inService';
import { numberedPorts } from '../standards/numberedPorts';
import { testUnit, Walk } from '../test/walk';
import { outcomeOf } from './outcomeOf';

/* One run in each school, every figure worked by hand beside its check. */

const trailer: Unit = testUnit({ ...newUnitDraft('trailer', 2015), number: '22', name: 'Trailer' });
const BAR = 0.06894757;

function figureIn(walk: Walk) {
  const { figures } = outcomeOf(walk.state, walk.context);
  return (id: FigureId) => {
    const found = figures.find((figure) => figure.id === id);
    if (!found) throw new Error(`no figure ${id}`);
    return found;
  };
}

/** Walks to a step, answering and marking at the proposals on the way. */
function goTo(walk: Walk, stepId: string): Walk {
  for (let guard = 0; walk.state.step?.id !== stepId && guard < 40; guard += 1) {
    if (walk.state.step && isAnswered(walk.state.step.act)) walk.look();
    else if (walk.state.hold) walk.holdOver();
    else walk.wait(5).mark();
  }
  expect(walk.state.step?.id).toBe(stepId);
  return walk;
}

describe('a tractor and trailer at the periodic inspection, worked by hand', () => {
  const tractor = testUnit({ ...newUnitDraft('tractor', 2015), number: '11', name: 'Tractor' });
  const walk = new Walk(tractor, { towed: [trailer], ruleSet: inService });
  // 85 to 100 in 30 s; out at 124, in at 102; the governor cycles in four minutes and a half.
  walk.ready().look().wait(5).mark().wait(30).mark().wait(20).mark(124);
  // The blast takes 25 s.
  walk.mark(124).wait(25).mark(124).mark(102);
  walk.mark(102).wait(270).mark(102);
  walk.look().mark(116);
  // 1 psi a minute from 122 released, 3 from 112 applied, as long as is asked.
  walk.held(122, 1).held(112, 3);
  walk.mark(62).look().mark(41).mark(37).look().mark(78);
  walk.look().look().mark(5);
  const figure = figureIn(walk);

  it.each([
    ['build-up-time', 30, 's'],
    // 15 psi ÷ 30 s
    ['build-up-rate', 0.5, 'psi/s'],
    // 5,600 in³ = 3.2407 ft³; × 30 psi/min ÷ 14.7
    ['free-air-delivery', 6.614, 'scfm'],
    ['cut-out', 124, 'psi'],
    ['cut-in', 102, 'psi'],
    // 124 − 102
    ['purge-time', 25, 's'],
    ['governor-differential', 22, 'psi'],
    ['governor-cycle', 270, 's'],
    ['trailer-supply', 116, 'psi'],
    // 2 psi ÷ 2 min
    ['static-leak', 1, 'psi/min'],
    // 3 psi ÷ 1 min
    ['applied-leak', 3, 'psi/min'],
    ['warning', 62, 'psi'],
    ['pop-out-trailer', 41, 'psi'],
    ['pop-out-park', 37, 'psi'],
    ['warning-reset', 78, 'psi'],
    ['stop-lamp', 5, 'psi'],
  ] as const)('%s is %d %s', (id, value, unit) => {
    expect(figure(id).unit).toBe(unit);
    // As an inspector reads it; what the needle hides is put right beside it.
    expect(figure(id).read ?? figure(id).value).toBeCloseTo(value, 2);
  });

  it('loses free air by 4.890 ft³ × psi a minute ÷ 14.7', () => {
    // 5,600 + 2,850 in³
    for (const [leak, loss] of [
      ['static-leak', 'static-loss'],
      ['applied-leak', 'applied-loss'],
    ] as const) {
      expect(figure(loss).value).toBeCloseTo((4.89 * (figure(leak).value ?? 0)) / 14.7, 3);
    }
  });

  it('holds each to the limit of one trailer, and fails none', () => {
    expect(figure('static-leak').limit?.max).toBe(3);
    expect(figure('applied-leak').limit?.max).toBe(4);
    const { figures } = outcomeOf(walk.state, walk.context);
    expect(figures.filter((each) => each.verdict === 'fail')).toEqual([]);
  });

  it('with both gauges read finds the circuit that leaks', () => {
    const both: RuleSet = { ...inService, switches: { ...inService.switches, gauges: 'both' } };
    const two = goTo(new Walk(tractor, { ruleSet: both }).ready(), 'static-hold');
    // A tractor alone may lose 2: 225 s are asked for. 3.75 and 18.75 psi in them are 1 and 5 a minute.
    two.startHold(122).mark(120).wait(225).mark(118.25).mark(101.25);
    expect(figureIn(two)('static-leak').read).toBeCloseTo(1, 9);
    expect(figureIn(two)('static-leak-other').read).toBeCloseTo(5, 9);
    expect(figureIn(two)('static-leak-other').verdict).toBe('fail');
    const applied = goTo(two, 'applied-hold')
      .startHold(112)
      .mark(104)
      .wait(150)
      .mark(109.5)
      .mark(94);
    expect(figureIn(applied)('applied-leak-other').read).toBeCloseTo(4, 9);
  });
});

describe('a numbered-port truck and trailer, worked by hand in bar', () => {
  const truck = testUnit({
    ports: 'numbers',
    gauge: usualGauge.bar,
    governor: { cutInPsi: 7.2 / BAR, cutOutPsi: 8.6 / BAR },
  });
  const walk = new Walk(truck, { towed: [trailer], ruleSet: numberedPorts });
  const bar = (value: number) => value / BAR;
  // Empty; 65 % of 8.6 bar is 5.59, read as 5.6, after 150 s; 8.6 after 260 s in all.
  walk.ready().wait(5).mark().wait(150).mark(bar(5.6)).wait(110).mark(bar(8.6));
  walk.mark(bar(8.6)).mark(bar(7.2)).look().mark(bar(7.4));
  walk.held(bar(8.4), bar(0.1)).held(bar(7.7), bar(0.2));
  goTo(walk, 'reserve').mark(bar(5.2));
  const figure = figureIn(walk);

  it('times the build-up from the engine’s start to 65 and to 100 %', () => {
    expect(figure('build-up-part')).toMatchObject({ value: 150, verdict: 'pass' });
    expect(figure('build-up-full')).toMatchObject({ value: 260, verdict: 'pass' });
  });

  it('reads 7.4 bar at the supply coupling, between 6.5 and 8.5', () => {
    expect((figure('coupling-supply').value ?? 0) * BAR).toBeCloseTo(7.4, 6);
    expect(figure('coupling-supply').verdict).toBe('pass');
  });

  it('loses 0.1 bar in a minute released and 0.2 applied: 1.45 and 2.90 psi', () => {
    expect(figure('static-leak').read).toBeCloseTo(1.4504, 3);
    expect(figure('applied-leak').read).toBeCloseTo(2.9008, 3);
    // The limits are the psi school's, converted and called house defaults.
    expect(figure('static-leak').limit).toMatchObject({ max: 3, tag: 'house' });
  });

  it('keeps what eight full strokes left, which no limit is set for', () => {
    expect((figure('reserve-left').value ?? 0) * BAR).toBeCloseTo(5.2, 6);
    expect(figure('reserve-left').verdict).toBeNull();
  });

  it('says its sentences in bar', () => {
    const { figures } = outcomeOf(walk.state, { ...walk.context, sayIn: 'bar' });
    expect(figures.find((each) => each.id === 'coupling-supply')?.why).toBe(
      '7.4 bar; 6.5 to 8.5 bar is allowed.',
    );
    expect(padNow(walk.state, walk.nowMs)).toBeNull();
  });
});
