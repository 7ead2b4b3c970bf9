/*
 * How long suspects take on rigs that were never seen and on rigs that were, beside a fixed yardstick of the same run:
 * one whole run by the book on the twin. Arguments: rigs by their numbers, such as `12,09+31`.
 */
import { rigTitle } from '@keen-bleed/core';
import {
  nextCheck,
  pointsAt,
  rankingOf,
  RigModel,
  Weighing,
  type Evidence,
} from '@keen-bleed/core/diagnosis';
import { demoRigsUnderTest } from './demoRigsUnderTest';
import { readRun, worldOf } from './suspectsWorld';

const only = (process.argv[2] ?? '12').split(',');
const seconds = (ms: number) => (ms / 1000).toFixed(1);

for (const rig of demoRigsUnderTest()) {
  const name = [rig.unit, ...rig.towed].map(({ number }) => number).join('+');
  if (!only.includes(name)) continue;
  const model = new RigModel(rig);
  if (!model.hasRun) continue;
  const timed = (does: () => void) => {
    const fromMs = performance.now();
    does();
    return performance.now() - fromMs;
  };
  const all = (work: Iterable<unknown>) => {
    for (const _ of work) void _;
  };
  model.run(null);
  const world = worldOf(rig, [], 3);
  const yardstick = timed(() => void new RigModel(rig).run(null));
  const evidence: Evidence[] = [
    { kind: 'run', atMs: 1, figures: readRun(world) },
    { kind: 'complaint', atMs: 1, complaintId: 'slow-to-build' },
  ];
  const pointed =
    pointsAt('figure:build-up-time', model.faults, [])?.suspects.map(({ id }) => id) ?? [];
  const rough = timed(() => {
    all(model.prepare('first', pointed));
    rankingOf(new Weighing(model, evidence));
  });
  const whole = timed(() => all(model.prepare('runs')));
  let ranking = rankingOf(new Weighing(model, evidence));
  const likely = () =>
    ranking.suspects.slice(0, 8).flatMap(({ faults }) => faults.map(({ id }) => id));
  const sharper = timed(() => {
    all(model.prepare('runs', likely()));
    ranking = rankingOf(new Weighing(model, evidence));
  });
  const first = likely();
  const checks = timed(() => all(model.prepare('checks', first)));
  const everything = timed(() => all(model.prepare()));
  let weighing = new Weighing(model, evidence);
  const again = timed(() => {
    weighing = new Weighing(model, evidence);
    rankingOf(weighing);
  });
  const next = timed(() => void nextCheck(weighing));
  const heap = process.memoryUsage().heapUsed / 2 ** 20;
  console.log(
    [
      `${rigTitle(rig)}: yardstick, one run by the book ${yardstick.toFixed(0)} ms`,
      `  never seen: rough ${seconds(rough)} s, every fault ${seconds(rough + whole + sharper)} s, checks of the first suspects ${seconds(checks)} s more, every check ${seconds(everything)} s more (one core)`,
      `  seen before: ranking ${again.toFixed(0)} ms, next check ${next.toFixed(0)} ms; heap ${heap.toFixed(0)} MB`,
    ].join('\n'),
  );
}
