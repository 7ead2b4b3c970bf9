import type { Figure, FigureId, RuleSet } from '@keen-bleed/contract';
import { settlingNow, padNow } from '../../run/awaiting';
import { slopeShare } from '../../gauge/uncertainty';
import { settled as settledAir } from '../../leak/heat';
import { leakEstimate } from '../../leak/leakEstimate';
import type { HoldMark } from '../../leak/leakRate';
import { figuresOf } from '../../reading/figuresOf';
import { judgeBy } from '../../reading/judge';
import { roadTest } from '../../standards/roadTest';
import type { SeededNumbers } from '../seededNumbers';
import { testUnit, Walk } from '../walk';
import { drawTruck, MadeUpTruck } from './madeUpTruck';

const STEPS = [
  'prepare',
  'build-up',
  'cut-out',
  'cut-in',
  'static-hold',
  'applied-hold',
  'warning',
  'pop-out',
];

/** The road test's limits, headed by how sure. */
export const sureRules: RuleSet = {
  ...roadTest,
  id: 'sure',
  steps: STEPS.map((stepId) => ({ stepId, need: 'must' })),
  switches: { ...roadTest.switches, headedBy: 'how-sure' },
};

/** How a made-up run is made. */
export interface RunManner {
  /** Waits as the pad says before a hold, or begins as soon as the needle looks still. */
  waits: boolean;
  /** Reads the needle at the end of a hold, or lets it end by its clock. */
  readsEnd: boolean;
  gauge: 'primary' | 'master';
}

/** What was true of the truck, by figure. */
export type Truth = Partial<Record<FigureId, number>>;

export interface JudgedRun {
  figures: readonly Figure[];
  truth: Truth;
  /** What a figure comes to once what it asks for has been done; undefined where that is not one of the known ways. */
  settled: (figure: Figure) => Figure['verdict'] | undefined;
}

const START_MS = 1_760_000_000_000;

/** One run of a truck drawn anew, by somebody who reads as people do, with all that was true of it. */
export function judgedRun(random: SeededNumbers, manner: RunManner): JudgedRun {
  const truck = new MadeUpTruck(drawTruck(random, manner.gauge === 'master' ? 1.25 : 8.75), random);
  const even = random.between;
  const walk = new Walk(testUnit(), { ruleSet: sureRules });
  const truth: Truth = {};
  const now = () => (walk.nowMs = START_MS + truck.atS * 1000);
  const mark = (psi?: number) => {
    now();
    walk.mark(psi === undefined ? undefined : Math.min(150, Math.max(0, psi)));
  };
  now();
  walk.ready(manner.gauge);

  // Build-up: both passings by the needle, late as a thumb is.
  const timeS = even(10, 90);
  const cutOutPsi = even(108, 145);
  const fillPsiPerS = 15 / timeS;
  const fill = { fillPsiPerS };
  const passing = (psi: number, of: () => number, most = 600) => {
    for (let s = 0; of() < psi && s < most; s += 0.1) truck.pass(0.1, fill);
    return truck.atS;
  };
  // How a line is seen is one eye's matter for that line, not a new draw each moment.
  let eyeOffPsi = 0;
  const look = () => (eyeOffPsi = truck.draw.eyePsi * 0.7 * random.normal());
  const seen = () => truck.needlePsi + eyeOffPsi;
  const trueTimes: number[] = [];
  const watched = () => {
    const { psi } = truck;
    if (psi >= 85 && trueTimes.length === 0) trueTimes.push(truck.atS);
    if (psi >= 100 && trueTimes.length === 1) trueTimes.push(truck.atS);
    return seen();
  };
  for (const level of [85, 100]) {
    look();
    passing(level, watched);
    truck.pass(truck.late(), fill);
    mark();
  }
  passing(100.5, () => (watched(), truck.psi));
  truth['build-up-time'] = (trueTimes[1] ?? 0) - (trueTimes[0] ?? 0);

  passing(cutOutPsi, () => truck.psi);
  truth['cut-out'] = cutOutPsi;
  truck.pass(even(2, 6));
  mark(truck.read());

  // Cut-in: strokes until the governor loads; the foot of the last is read.
  const cutInPsi = cutOutPsi - even(8, 35);
  truth['cut-in'] = cutInPsi;
  truth['governor-differential'] = cutOutPsi - cutInPsi;
  const stroke = even(5, 10);
  while (truck.psi > cutInPsi) {
    truck.pass(even(2, 4));
    truck.letOut(stroke * even(0.8, 1.2));
  }
  truck.pass(0.3);
  const foot = truck.read();
  truck.pass(even(1, 2), fill);
  mark(foot);
  passing(cutOutPsi, () => truck.psi);
  truck.pass(even(3, 20));

  // Released and held.
  const hold = (limit: number, figure: FigureId, wait: [number, number]) => {
    const leaks = { leakPsiPerMin: even(0, 2 * limit) };
    truck.pass(even(...wait), leaks);
    mark(truck.read());
    const settling = settlingNow(walk.state, walk.nowMs);
    truck.pass(manner.waits ? (settling?.leftMs ?? 0) / 1000 + even(0.5, 3) : even(3, 10), leaks);
    mark(truck.read());
    look();
    for (;;) {
      const pad = padNow(walk.state, walk.nowMs);
      const running = walk.state.hold;
      if (!running || !pad) break;
      const leftS = (running.endsAtMs - START_MS) / 1000 - truck.atS;
      if (leftS <= 0) break;
      truck.pass(Math.min(0.5, leftS), leaks);
      now();
      if (seen() > pad.proposedPsi || pad.spec.key !== 'crossing') continue;
      truck.pass(truck.late(), leaks);
      if ((running.endsAtMs - START_MS) / 1000 > truck.atS) mark();
      look();
    }
    now();
    if (manner.readsEnd) {
      truck.pass(6, leaks);
      mark(truck.read());
    } else {
      walk.nowMs = walk.state.hold?.endsAtMs ?? walk.nowMs;
      walk.holdOver();
      truck.atS = (walk.nowMs - START_MS) / 1000;
    }
    truth[figure] = leaks.leakPsiPerMin;
  };
  truck.letOut(even(2, 6));
  hold(2, 'static-leak', [2, 8]);
  truck.letOut(even(7, 13));
  hold(3, 'applied-leak', [3, 10]);

  // Down the fall, with small strokes, reading after the event.
  const otherDialPsi = even(-8.75, 8.75);
  truck.otherOverPsi = 2 * random.normal();
  const fall = (figure: FigureId, at: number, felt: () => number, strokePsi: [number, number]) => {
    while (felt() > at && truck.psi > 2) {
      truck.pass(even(1.5, 3));
      const small = felt() < at + 20;
      truck.letOut(small ? even(...strokePsi) : even(5, 9));
      truck.otherOverPsi += 0.3 * random.normal();
    }
    truth[figure] = at;
    truck.pass(truck.late() + 0.5);
    mark(truck.read());
  };
  const warn = Math.min(even(40, 92), truck.psi - 10);
  fall('warning', warn, () => truck.psi + Math.min(0, truck.otherOverPsi), [2, 5]);
  const pop = Math.min(warn - 6, even(5, 70));
  fall('pop-out-park', pop, () => truck.psi + Math.max(0, truck.otherOverPsi), [2, 5]);
  if (walk.state.step && padNow(walk.state, walk.nowMs)?.spec.key === 'other') {
    mark(truck.readOther(otherDialPsi));
  }
  return {
    figures: figuresOf(walk.state, walk.context),
    truth,
    settled: (figure) =>
      figure.unit === 'psi/min'
        ? heldAgain(figure, truth[figure.id] ?? 0, truck, random)
        : takenAgain(figure, truth, random),
  };
}

/** A further hold as long as was asked, on the gauge that was asked for, in air that has stood long. */
function heldAgain(
  { settle, limit }: Figure,
  leakPsiPerMin: number,
  truck: MadeUpTruck,
  random: SeededNumbers,
): Figure['verdict'] | undefined {
  const minutes = Number(/(\d+) min/.exec(settle ?? '')?.[1] ?? NaN);
  const most = limit?.max ?? null;
  if (!(minutes > 0) || !limit || most === null) return undefined;
  const isMaster = (settle ?? '').includes('master');
  const lengthS = minutes * 60;
  const share = isMaster ? 0.5 : 1;
  const shows = (psi: number) => (isMaster ? psi * (1 + 0.01 * masterOff) : truck.shows(psi));
  const masterOff = random.between(-1, 1);
  const read = (atS: number): HoldMark => {
    const psi = shows(105 - (leakPsiPerMin * atS) / 60);
    const off = share * Math.hypot(truck.draw.eyePsi, truck.draw.stickPsi / 1.7) * random.normal();
    const rung = share;
    return {
      atMs: atS * 1000,
      readingPsi: Math.round((psi + off) / rung) * rung,
      resolutionPsi: share,
      method: 'read',
    };
  };
  const estimate = leakEstimate([read(0), read(lengthS)], null, {
    heat: settledAir,
    slopeShare: slopeShare(isMaster ? 'master' : 'primary'),
  });
  return estimate
    ? judgeBy(estimate.readPsiPerMin, estimate.chanceAtMost(most), limit).verdict
    : 'cant-tell';
}

/** The step in which a pressure is marked. */
const STEP_OF: Partial<Record<FigureId, readonly string[]>> = {
  'cut-out': ['cut-out'],
  'cut-in': ['cut-in'],
  'governor-differential': ['cut-out', 'cut-in'],
  warning: ['warning'],
  'pop-out-park': ['pop-out'],
};

/** Taken three times on a master gauge with small strokes, the mean marked, as it is asked for. */
function takenAgain(
  { id, settle }: Figure,
  truth: Truth,
  random: SeededNumbers,
): Figure['verdict'] | undefined {
  const steps = STEP_OF[id];
  if (!steps || !(settle ?? '').includes('three times')) return undefined;
  const even = random.between;
  const ends = [even(-1.25, 1.25), even(-1.25, 1.25)] as const;
  const shows = (psi: number) => psi + ends[0] + ((ends[1] - ends[0]) * (psi - 20)) / 105;
  const eyePsi = even(0.3, 1);
  // The gauge is in the tank that moves it, or nearly: it is picked before the fall.
  const apartPsi = 0.5 * random.normal();
  const once = (step: string): number => {
    const foot = even(0, 1) * even(1.5, 3.5);
    const psi = {
      'cut-out': (truth['cut-out'] ?? 0) - even(0.2, 1.2),
      'cut-in': (truth['cut-in'] ?? 0) - foot,
      warning: (truth.warning ?? 0) - Math.min(0, apartPsi) - foot,
      'pop-out': (truth['pop-out-park'] ?? 0) - Math.max(0, apartPsi) - foot,
    }[step];
    const slip = even(0, 1) < 0.02 ? [2, -2, 4, -4][Math.floor(even(0, 4))]! : 0;
    return Math.round(shows(psi ?? 0) + eyePsi * random.normal()) + slip;
  };
  const mean = (step: string) => {
    const takes = [once(step), once(step), once(step)];
    return Math.round(2 * ((takes[0]! + takes[1]! + takes[2]!) / 3)) / 2;
  };
  const walk = new Walk(testUnit(), { ruleSet: sureRules }).ready('master');
  for (const step of sureRules.steps.map(({ stepId }) => stepId).slice(1)) {
    if (!steps.includes(step)) walk.add({ kind: 'skip', stepId: step, reason: 'not asked' });
    else {
      walk.wait(60).mark(Math.max(0, mean(step)), 3);
      if (walk.state.step && padNow(walk.state, walk.nowMs)?.spec.key === 'other') {
        const there = shows((truth['pop-out-park'] ?? 0) - Math.max(0, apartPsi) + apartPsi);
        walk.mark(Math.max(0, Math.round(there)));
      }
    }
  }
  return figuresOf(walk.state, walk.context).find((each) => each.id === id)?.verdict;
}
