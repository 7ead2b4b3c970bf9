/* Writes the golden records of this version of the core, once: what is there is never written over. */
import type { RunFact, VisitFact, VisitHeader } from '@keen-bleed/contract';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { inService } from '../../core/src/standards/inService';
import { numberedPorts } from '../../core/src/standards/numberedPorts';
import { usualGauge } from '../../core/src/rig/newUnit';
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
write(`visit-${CORE_VERSION}`, 'visit', visit());
