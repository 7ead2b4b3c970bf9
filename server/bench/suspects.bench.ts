/*
 * Weighs suspects on made-up rigs that differ from the model, and prints how often it is right, how sure it is, and what
 * it costs. Nothing of it tunes the model.
 *
 *   node --import tsx server/bench/suspects.bench.ts --cases 200 --seed 1 --rigs 09,12 [--channels] [--json FILE] [--tables FOLDER]
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { rigTitle, type RigUnderTest } from '@keen-bleed/core';
import {
  complaints,
  nextCheck,
  pointsAt,
  rankingOf,
  RigModel,
  saysOf,
  shownBetween,
  Weighing,
  JointWeigher,
  type Evidence,
  type KeptTable,
  type Pointed,
  type Ranking,
} from '@keen-bleed/core/diagnosis';
import type { Fault } from '@keen-bleed/core/twin';
import { drawsOf, noticedShare, partOf, Twin } from '@keen-bleed/core/twin';
import { demoRigsUnderTest } from './demoRigsUnderTest';
import { answered, complained, readRun, worldOf } from './suspectsWorld';
import { printed, type Case } from './suspectsTable';

const option = (name: string, usual: string) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? usual : (process.argv[at + 1] ?? usual);
};
const cases = Number(option('cases', '200'));
const seed = Number(option('seed', '1'));
const only = option('rigs', '').split(',').filter(Boolean);
const channels = process.argv.includes('--channels');
const json = option('json', '');
const tables = option('tables', '');
const MOST_CHECKS = 5;
const RUN_AGAIN_MINUTES = 8;
/** Parts that are changed, one after the other, before somebody gives up. */
const MOST_MENDED = 3;
/** Severities at which another fault may give the same readings. */
const GRID = [0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];

/** What an odd figure is called where it fails. */
const FAILS: readonly (readonly [RegExp, string])[] = [
  [/^build-up$/, 'figure:build-up-time'],
  [/^cut-out$/, 'figure:cut-out'],
  [/^cut-in$/, 'figure:cut-in'],
  [/^static/, 'figure:static-leak'],
  [/^applied/, 'figure:applied-leak'],
  [/^warning$/, 'figure:warning'],
  [/^(red|yellow)$/, 'figure:pop-out'],
];

const rigs = demoRigsUnderTest().filter(
  ({ unit, towed }) =>
    only.length === 0 || only.includes([unit, ...towed].map(({ number }) => number).join('+')),
);
const found: Case[] = [];
const draws = drawsOf(seed);

for (const rig of rigs) {
  const fromMs = performance.now();
  const model = new RigModel(rig, { channels });
  // A table that was worked out before is taken in: the model is the same, only its making is skipped.
  const kept =
    tables &&
    join(tables, `${rigTitle(rig).replaceAll(/[^\w]+/g, '-')}${channels ? '-channels' : ''}.json`);
  if (kept && existsSync(kept)) model.learn(JSON.parse(readFileSync(kept, 'utf8')) as KeptTable);
  for (const _ of model.prepare()) void _;
  if (kept) writeFileSync(kept, JSON.stringify(model.table()));
  console.error(
    `${rigTitle(rig)}: prepared in ${((performance.now() - fromMs) / 1000).toFixed(0)} s`,
  );
  for (let n = 0; n < Math.ceil(cases / rigs.length); n += 1) {
    const pick = () => model.faults[Math.floor(draws.even() * model.faults.length)]!;
    const kind = draws.even();
    const wrong =
      kind < 0.2
        ? []
        : kind < 0.28
          ? [pick(), pick()].map((fault) => ({ fault, severity: draws.even() }))
          : [{ fault: pick(), severity: draws.even() }];
    if (wrong.length === 2 && wrong[0]!.fault.at === wrong[1]!.fault.at) wrong.pop();
    found.push(oneCase(model, rig, wrong, Math.floor(draws.even() * 1e6)));
  }
}
console.log(printed(found));
if (json) writeFileSync(json, JSON.stringify(found));

function oneCase(
  model: RigModel,
  rig: RigUnderTest,
  wrong: readonly { fault: Fault; severity: number }[],
  worldSeed: number,
): Case {
  const world = worldOf(rig, wrong, worldSeed);
  const evidence: Evidence[] = [];
  const read = {
    kind: 'run',
    atMs: 1,
    figures: model.hasRun ? readRun(world, { channels }) : {},
    gaugeChecked: channels,
  } as const;
  if (model.hasRun) evidence.push(read);
  const said = complained(world);
  if (said) evidence.push({ kind: 'complaint', atMs: 1, complaintId: said });
  let weighing = new Weighing(model, evidence);
  const first = rankingOf(weighing);
  let checks = 0;
  let minutes = 0;
  let state: string | null = null;
  let now: Ranking = first;
  let ending = 'most';
  let again = false;
  const done: string[] = [];
  while (checks < MOST_CHECKS) {
    const next = nextCheck(weighing, { state: state as never }, now);
    if (next.next === 'again' && model.hasRun && !again) {
      // The run is made again, by another eye at the same dials.
      again = true;
      checks += 1;
      minutes += RUN_AGAIN_MINUTES;
      evidence.push({ ...read, atMs: 3, figures: readRun(world, { channels }) });
      weighing = new Weighing(model, [...evidence]);
      now = rankingOf(weighing);
      continue;
    }
    if (next.next !== 'check') {
      ending = next.next;
      break;
    }
    const { check } = next.best;
    minutes += next.best.minutes;
    state = check.state.id;
    checks += 1;
    done.push(check.id);
    evidence.push({ kind: 'answer', atMs: 2, checkId: check.id, answer: answered(world, check) });
    weighing = new Weighing(model, [...evidence]);
    now = rankingOf(weighing);
  }
  const both = wrong.length === 2 ? goneOn(model, rig, wrong, worldSeed, evidence, now) : null;
  const run = model.hasRun ? new JointWeigher(model, read, []) : null;
  const shows = (fault: Fault, severity: number) => {
    if (!run) return false;
    const shown = shownBetween(model, fault, Math.max(0.1, severity));
    const lamps = model.run(null).lamps;
    return (
      run
        .shiftOf(shown, () => ({ mean: 0, shift: 0, unsure: 0, chances: {} }))
        .some((shift, row) => Math.abs(shift) > 1.96 * run.deviation(row)) ||
      Object.entries(shown.lamps).some(
        ([lamp, on]) => Math.abs(on - (lamps[lamp as never] ?? 0)) > 0.5,
      )
    );
  };
  const isToldByWords = (fault: Fault, severity: number) =>
    complaints.some((each) => saysOf(each, fault, severity) >= 3 * saysOf(each, null)) ||
    model.checks.some(
      ({ doing }) =>
        doing.does === 'look' &&
        noticedShare(fault, severity) * (doing.under[fault.id]?.bad ?? 0) >=
          3 * (doing.sound.bad ?? 1),
    );
  const severityOf = (ranking: Ranking, fault: Fault) =>
    ranking.suspects.find(({ faults }) => faults[0]?.id === fault.id)?.severity ?? null;
  const [only] = wrong;
  const without =
    run && wrong.length === 1 && only && shows(only.fault, only.severity)
      ? takenOut(model, run, only.fault, only.severity, evidence.slice(0, said ? 2 : 1))
      : null;
  return {
    rig: rigTitle(rig),
    without,
    wrong: wrong.map(({ fault, severity }) => ({
      id: fault.id,
      severity,
      onDash: shows(fault, severity),
      byWords: isToldByWords(fault, severity),
      after: severityOf(now, fault),
    })),
    first: rowsOf(first),
    last: rowsOf(now),
    checks,
    minutes,
    ending,
    done,
    said,
    also: world.also,
    both,
    table: run ? tableAlone(model, run, wrong[0]?.fault.id ?? null) : null,
  };
}

/**
 * Goes on as a shop does: mends the first suspect, makes the run again, and asks anew, up to three parts.
 *
 * @returns how many of two faults were mended, with how many checks and parts
 */
function goneOn(
  model: RigModel,
  rig: RigUnderTest,
  wrong: readonly { fault: Fault; severity: number }[],
  worldSeed: number,
  before: readonly Evidence[],
  first: Ranking,
): NonNullable<Case['both']> {
  const twin = new Twin(rig);
  const evidence = [...before];
  let left = [...wrong];
  let now = first;
  let checks = 0;
  let parts = 0;
  let atMs = 10;
  while (left.length > 0 && parts < MOST_MENDED && now.suspects[0]) {
    const mended = now.suspects[0].faults[0]!;
    parts += 1;
    left = left.filter(({ fault }) => fault.id !== mended.id);
    const { unit, part } = partOf(mended, twin);
    const world = worldOf(rig, left, worldSeed);
    evidence.push({ kind: 'repair', atMs, unit, part });
    if (model.hasRun) {
      const figures = readRun(world, { channels });
      evidence.push({ kind: 'run', atMs: atMs + 1, figures, gaugeChecked: channels });
    }
    let weighing = new Weighing(model, [...evidence]);
    now = rankingOf(weighing);
    for (let n = 0; n < MOST_CHECKS; n += 1) {
      const next = nextCheck(weighing, {}, now);
      if (next.next !== 'check') break;
      const { check } = next.best;
      checks += 1;
      const answer = answered(world, check);
      evidence.push({ kind: 'answer', atMs: atMs + 2, checkId: check.id, answer });
      weighing = new Weighing(model, [...evidence]);
      now = rankingOf(weighing);
    }
    atMs += 10;
  }
  return { mended: wrong.length - left.length, checks, parts };
}

/**
 * What is told where the fault is not in the list; null where another of the list gives the same readings within what a
 * gauge tells.
 */
function takenOut(
  model: RigModel,
  run: JointWeigher,
  fault: Fault,
  severity: number,
  evidence: readonly Evidence[],
): Case['without'] {
  const shiftOf = (of: Fault, at: number) =>
    run.shiftOf(shownBetween(model, of, Math.max(0.1, at)), () => ({
      mean: 0,
      shift: 0,
      unsure: 0,
      chances: {},
    }));
  const truth = shiftOf(fault, severity);
  const imitates = model.faults.some(
    (other) =>
      other.id !== fault.id &&
      GRID.some((at) =>
        shiftOf(other, at).every(
          (shift, row) => Math.abs(shift - truth[row]!) < run.deviation(row),
        ),
      ),
  );
  if (imitates) return null;
  // The same rig's table, with one fault fewer to choose from.
  const fewer = Object.create(model, {
    faults: { value: model.faults.filter(({ id }) => id !== fault.id) },
  }) as RigModel;
  const ranking = rankingOf(new Weighing(fewer, evidence));
  return {
    unlisted: ranking.unlisted,
    isFirst: ranking.unlisted > (ranking.suspects[0]?.chance ?? 0),
  };
}

function rowsOf(ranking: Ranking): Case['first'] {
  return {
    suspects: ranking.suspects
      .slice(0, 5)
      .map(({ faults, chance }) => ({ ids: faults.map(({ id }) => id), chance })),
    sound: ranking.sound,
    reader: ranking.reader,
    unlisted: ranking.unlisted,
    two: ranking.two.faults.map(({ id }) => id),
    twoChance: ranking.two.chance,
  };
}

/** The trade's table by itself: the rows of what is odd, their suspects in the printed order, and each row's first check. */
function tableAlone(model: RigModel, run: JointWeigher, truth: string | null): Case['table'] {
  const odd = run
    .numbers()
    .filter(({ seen, mean, deviation }) => Math.abs(seen - mean) > 1.96 * deviation);
  const rows = new Map<string, Pointed>();
  for (const { figure } of odd) {
    const key = FAILS.find(([of]) => figure !== null && of.test(figure))?.[1];
    const pointed = key === undefined ? null : pointsAt(key, model.faults, model.checks);
    if (pointed) rows.set(pointed.symptom.id, pointed);
  }
  const suspects = [
    ...new Set([...rows.values()].flatMap((row) => row.suspects.map(({ id }) => id))),
  ];
  const at = truth === null ? -1 : suspects.indexOf(truth);
  return {
    // Each that it names before the right one is changed for nothing; all of them where it does not name it.
    needless: at < 0 ? suspects.length : at,
    named: at >= 0,
    minutes: [...rows.values()].reduce(
      (sum, { checks: [check] }) => sum + (check ? check.minutes + check.state.minutes : 0),
      0,
    ),
  };
}
