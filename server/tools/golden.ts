/* Writes the golden records of this version of the core, once: what is there is never written over. */
import type { JobHeader, RunFact, VisitFact, VisitHeader } from '@keen-bleed/contract';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { inService } from '../../core/src/standards/inService';
import { numberedPorts } from '../../core/src/standards/numberedPorts';
import { usualGauge } from '../../core/src/rig/newUnit';
import { jobHeader, JobWriter } from '../../core/src/test/jobWriter';
import { testUnit, unitOf, Walk } from '../../core/src/test/walk';
import { roadTest } from '../../core/src/standards/roadTest';
import { CORE_VERSION } from '../../core/src/version';
import type { OldLog } from '../../core/src/log/upToDate';
import { meaningOf, type Golden } from '../../core/src/log/golden/meaning';

const folder = join(dirname(fileURLToPath(import.meta.url)), '../../core/src/log/golden/records');
mkdirSync(folder, { recursive: true });

/** A whole run with what a record can hold: a correction, a note, an undo, a bad finding, a hold that falls. */
function run(walk: Walk, fallPsi: number): OldLog {
  let corrected = false;
  walk.through({
    ready: (on) => {
      on.wait(20).ready('primary', { water: 'milky' });
      return 'done';
    },
    look: (on) => {
      on.wait(20).look();
      return 'done';
    },
    stop: (on) => {
      on.wait(20).look();
      return 'done';
    },
    marks: (on, step) => {
      for (const spec of step.act.marks) on.wait(spec.at === 'passing' ? 25 : 8).mark();
      if (corrected) return 'done';
      corrected = true;
      const { factId, stepId, key, atMs, readingPsi, resolutionPsi, method } =
        on.state.marks.at(-1)!;
      on.add({
        kind: 'mark',
        stepId,
        key,
        atMs,
        readingPsi: readingPsi + 2,
        resolutionPsi,
        method,
        supersedes: factId,
      });
      on.add({ kind: 'note', stepId, text: 'Blast heard' });
      const taken = on.add({ kind: 'note', stepId, text: 'not this one' });
      on.add({ kind: 'retract', target: taken.id });
      return 'done';
    },
    hold: (on, step) => {
      on.wait(30).mark();
      if (step.act.other) on.mark();
      const from = on.state.marks.at(-1)!.readingPsi;
      on.wait(step.act.seconds + 1).mark(from - fallPsi);
      if (step.act.other) on.mark();
      return 'done';
    },
  });
  walk.wait(5).add({ kind: 'close', how: 'complete' });
  return {
    header: { ...walk.log.header },
    facts: walk.facts.map((fact: RunFact) => ({ ...fact })),
  };
}

function visit(): OldLog {
  const unit = testUnit();
  const header: VisitHeader = {
    id: '00000000-0000-7000-8000-0000000000ee',
    kind: 'visit',
    v: 1,
    subject: { unitId: unit.id, rigId: null, partId: null },
    startedAtMs: 1_760_000_000_000,
    offsetMs: 1_500,
    coreVersion: CORE_VERSION,
    made: { units: [unit], reason: 'Loses air overnight' },
  };
  const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
  const stamp = (n: number, lane: 1 | 2, seq: number) => ({
    id: id(n),
    lane: id(900 + lane),
    seq,
    atMs: 1_760_000_000_000 + n * 10_000,
    offsetMs: lane === 1 ? 1_500 : -4_000,
    v: 1,
  });
  const at = { unitId: unit.id, partId: 'rear-relay' };
  const facts: VisitFact[] = [
    { ...stamp(1, 1, 1), kind: 'note', at: null, text: 'Parked on the slope all night' },
    { ...stamp(2, 2, 1), kind: 'seen', at, standing: 'bad', text: 'Hiss at the exhaust' },
    { ...stamp(3, 1, 2), kind: 'seen', at, standing: 'noted', text: 'Mud over the exhaust' },
    {
      ...stamp(4, 2, 2),
      kind: 'seen',
      at,
      standing: 'bad',
      text: 'Hiss at the exhaust, released',
      supersedes: id(2),
    },
    { ...stamp(5, 1, 3), kind: 'retract', target: id(3) },
    { ...stamp(6, 1, 4), kind: 'close' },
  ];
  return { header: { ...header }, facts: facts.map((fact) => ({ ...fact })) };
}

function job(): OldLog {
  const unit = testUnit();
  const run = '00000000-0000-7000-8000-0000000000ef';
  const failure = { runId: run, key: 'figure:applied-leak', title: 'Applied leak', value: 6.1 };
  const { header, ...job } = goldenJob(
    jobHeader([unit], {
      bornOf: { kind: 'failure', runId: run, key: failure.key },
      found: 'Applied leak 6.1 psi/min, allowed at most 3',
      failures: [{ ...failure, critical: true }],
      suspected: { unitId: unit.id, partId: 'rear-relay', chance: 0.71 },
    }),
    unit.id,
    run,
  );
  return { header: { ...header }, facts: job.facts.map((fact) => ({ ...fact })) };
}

/** One job with every kind of fact that a device tells. */
function goldenJob(header: JobHeader, unitId: string, logId: string) {
  const writer = new JobWriter(header);
  const at = { unitId, partId: 'rear-relay' };
  const lamp = { unitId, partId: 'stop-lamp-switch' };
  const wrong = writer.tell({ kind: 'proven', at: lamp, text: 'leaks', by: 'Soap: film' });
  writer.tell({
    kind: 'proven',
    at,
    text: 'exhaust blows with the pedal down',
    by: 'Listen at the rear relay’s exhaust: blows',
    supersedes: wrong.id,
    because: 'The film was old soap',
  });
  writer.tell({ kind: 'refused', at, offered: { setPsi: 10 }, problems: ['Cracks at 10'] });
  writer.tell({ kind: 'chosen', at, repair: 'replaced', offered: { setPsi: 4 } });
  writer.tell({ kind: 'waiting', text: 'the relay', until: '2026-11-30' });
  const caged = writer.tell({ kind: 'measure', measure: 'blocked', at, text: 'Plug in its hose' });
  writer.tell({ kind: 'owner', personId: header.id, name: 'Maren Osk' });
  writer.tell({ kind: 'wanted-by', day: '2026-12-01' });
  writer.tell({ kind: 'undone', measureId: caged.id });
  writer.tell({ kind: 'fitted', at, repair: 'replaced', was: { setPsi: 4 }, now: { setPsi: 4 } });
  writer.tell({ kind: 'note', text: 'The old one is on the bench' });
  for (const { id, minutes } of writer.state.owed) {
    writer.tell({
      kind: 'retested',
      owedId: id,
      logId,
      verdict: 'pass',
      said: 'As it should be',
      readings: [{ title: 'Leak', unit: 'psi/min', before: 6.1, after: minutes / 10, expected: 1 }],
    });
  }
  writer.tell({ kind: 'ask-release' });
  return { header, facts: writer.log.facts };
}

function write(name: string, kind: Golden['kind'], log: OldLog): void {
  const file = join(folder, `${name}.json`);
  if (existsSync(file)) {
    console.log(`${name}.json is there already: raise CORE_VERSION for another`);
    return;
  }
  const golden: Golden = { kind, coreVersion: CORE_VERSION, ...log, ...meaningOf(kind, log) };
  writeFileSync(file, `${JSON.stringify(golden)}\n`);
  console.log(`wrote ${name}.json`);
}

const tractor = unitOf('tractor', '21');
const trailer = unitOf('trailer', '31');
write(
  `run-${CORE_VERSION}-truck`,
  'run',
  run(new Walk(testUnit(), { ruleSet: roadTest, leftOut: [] }), 4),
);
write(
  `run-${CORE_VERSION}-rig`,
  'run',
  run(new Walk(tractor, { towed: [trailer], ruleSet: inService, leftOut: ['drain'] }), 1),
);
write(
  `run-${CORE_VERSION}-numbers`,
  'run',
  run(
    new Walk(testUnit({ ports: 'numbers', gauge: usualGauge.bar }), { ruleSet: numberedPorts }),
    0,
  ),
);
write(`job-${CORE_VERSION}`, 'job', job());
write(`visit-${CORE_VERSION}`, 'visit', visit());
