import type { Check, CheckAnswer } from '../checks/check';
import { CHECKED_AT, RUN_AT, SOUND_CHECKED, SOUND_RUNS } from '../diagnosis/rigModel';
import type { KeptTable, RigModel, ShownByRun } from '../diagnosis/rigModel';
import { lampFigures, numberFigures } from '../diagnosis/runFigures';
import { seededNumbers } from './seededNumbers';

/** One in so many faults moves a figure, or an answer: the rest show nothing there, as on a rig. */
const MOVES_ONE_IN = 5;

/**
 * What a rig would show, made up by a seed instead of worked out on its twin: as a table that another thread hands over.
 * It says nothing of any rig; what is made of a table can be tried on it in no time.
 */
export function madeUpTable(model: RigModel, seed: number): KeptTable {
  const { between, normal } = seededNumbers(seed);
  const moves = () => between(0, MOVES_ONE_IN) < 1;
  const usual = numberFigures.map(() => between(3, 5));
  const base = new Map(model.checks.map(({ id }) => [id, between(20, 90)]));
  const run = (by: readonly number[], noise: () => number, lit: number): ShownByRun => ({
    numbers: usual.map((at, n) => at + by[n]! + noise()),
    lamps: Object.fromEntries(lampFigures.map((lamp, n) => [lamp, n === 2 ? 1 - lit : lit])),
  });
  const still = numberFigures.map(() => 0);
  const answer = (check: Check, by: number, noise: number): CheckAnswer => {
    const at = base.get(check.id)! + noise;
    const worse = Math.min(1, Math.abs(by) / 30);
    switch (check.answer.kind) {
      case 'number':
        return { kind: 'number', value: at + by };
      case 'points':
        return { kind: 'points', points: [10, 30, 60].map((x) => [x, x + by + noise] as const) };
      case 'grade': {
        const { grades } = check.answer;
        return { kind: 'grade', grade: grades[Math.round(worse * (grades.length - 1))]!.id };
      }
      case 'choice': {
        const { choices } = check.answer;
        return { kind: 'choice', choice: choices[Math.round(worse * (choices.length - 1))]!.id };
      }
    }
  };
  const answers = (by: ReadonlyMap<string, number>, noise: () => number) =>
    Object.fromEntries(
      model.checks.map((check) => [check.id, answer(check, by.get(check.id) ?? 0, noise())]),
    );
  const runs: Record<string, ShownByRun> = { sound: run(still, () => 0, 1) };
  const answered: Record<string, Record<string, CheckAnswer>> = {
    sound: answers(new Map(), () => 0),
  };
  for (const { id } of model.faults) {
    const pull = numberFigures.map(() => (moves() ? 2 * normal() : 0));
    const lit = moves() ? 0 : 1;
    for (const severity of RUN_AT) {
      runs[`${id} @${severity}`] = run(
        pull.map((by) => by * severity),
        () => 0,
        severity > 0.5 ? lit : 1,
      );
    }
    const shift = new Map(
      model.checks.flatMap((check) => (moves() ? [[check.id, 20 * normal()]] : [])),
    );
    for (const severity of CHECKED_AT) {
      const by = new Map([...shift].map(([check, most]) => [check, most * severity]));
      answered[`${id} @${severity}`] = answers(by, () => 0);
    }
  }
  const many = (count: number) => Array.from({ length: count });
  return {
    runs,
    answers: answered,
    soundRuns: many(SOUND_RUNS).map(() => run(still, () => 0.15 * normal(), 1)),
    soundAnswers: many(SOUND_CHECKED).map(() => answers(new Map(), () => 1.5 * normal())),
  };
}
