/* How fast and how true the twin is: a reference run of 900 s on three rigs, beside the same equations solved to a
   tolerance five hundred times tighter; 200 faults through the part of a run the dash shows; and a cold start. */
import { newUnitDraft, type RigUnderTest } from '@keen-bleed/core';
import type { Unit } from '@keen-bleed/contract';
import {
  drive,
  faultsOf,
  REFERENCE_S,
  referenceMoves,
  Twin,
  twinWith,
} from '@keen-bleed/core/twin';
import { execFileSync } from 'node:child_process';

const unit = (kind: Unit['kind'], number: string): Unit => ({
  id: `00000000-0000-7000-8000-0000000000${number}`,
  revision: 1,
  retiredAtMs: null,
  ...newUnitDraft(kind, 2015),
  number,
  name: kind,
});
const rigs: Readonly<Record<string, RigUnderTest>> = {
  truck: { unit: unit('truck', '10'), towed: [] },
  'tractor-semi': { unit: unit('tractor', '11'), towed: [unit('trailer', '22')] },
  double: {
    unit: unit('tractor', '11'),
    towed: [unit('trailer', '22'), unit('dolly', '23'), unit('trailer', '24')],
  },
};
const semi = rigs['tractor-semi']!;
const TANKS = ['supply tank', 'primary tank', 'secondary tank', 'trailer 22 tank'];
const CHAMBERS = ['front left', 'rear left', 'trailer 22 left', 'rear left spring'];
const SAMPLES_PER_S = 60;

const median = (values: number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;

function timed(rig: RigUnderTest): number {
  const twin = new Twin(rig, { tanksPsi: 60 });
  const moves = referenceMoves();
  const fromMs = performance.now();
  drive(twin, moves, REFERENCE_S);
  return performance.now() - fromMs;
}

function sampled(tolerance: number) {
  const twin = new Twin(semi, { tanksPsi: 60, tolerance });
  const moves = referenceMoves();
  const all = [...TANKS, ...CHAMBERS].map(() => new Float64Array(REFERENCE_S * SAMPLES_PER_S));
  let next = 0;
  for (let i = 0; i < REFERENCE_S * SAMPLES_PER_S; i += 1) {
    const atS = (i + 1) / SAMPLES_PER_S;
    for (let move = moves[next]; move && move.atS <= atS; move = moves[next]) {
      twin.advanceTo(move.atS);
      move.does(twin);
      next += 1;
    }
    twin.advanceTo(atS);
    [...TANKS, ...CHAMBERS].forEach((place, j) => {
      const values = all[j];
      if (values) values[i] = twin.psi(place);
    });
  }
  return { all, events: twin.events };
}

/** Of the usual tolerance. */
const TIGHT = 0.002;
let tight: ReturnType<typeof sampled> | undefined;

function accuracy(tolerance: number): string {
  const ours = sampled(tolerance);
  const reference = (tight ??= sampled(TIGHT));
  let tank = 0;
  let tankSquares = 0;
  let chamber = 0;
  ours.all.forEach((values, j) =>
    values.forEach((psi, i) => {
      const off = Math.abs(psi - (reference.all[j]?.[i] ?? NaN));
      if (j < TANKS.length) {
        tank = Math.max(tank, off);
        tankSquares += off * off;
      } else chamber = Math.max(chamber, off);
    }),
  );
  const rms = Math.sqrt(tankSquares / (TANKS.length * REFERENCE_S * SAMPLES_PER_S));
  const same =
    ours.events.length === reference.events.length &&
    ours.events.every((event, i) => event.name === reference.events[i]?.name);
  const late = same
    ? Math.max(
        ...ours.events.map((event, i) => Math.abs(event.atS - (reference.events[i]?.atS ?? NaN))),
      )
    : NaN;
  return [
    `  against the tight solution: tanks ${tank.toFixed(3)} psi at worst, ${rms.toFixed(4)} RMS;`,
    `  chambers ${chamber.toFixed(2)} psi at worst; ${ours.events.length} events within ${(late * 1000).toFixed(1)} ms`,
  ].join('\n');
}

/** So far the gauges of the dash are read: built up, pumped to the governor's cut-in, both holds. */
const HOLDS_OVER_S = 604;
/** And so far its lamps and knobs speak: fanned down past the warning to the pop-out. */
const POPPED_OUT_S = 660;
/** Readings of a dash are good to a psi: steps this much coarser are less than a fifth of that off. */
const DASH_TOLERANCE = 5;

function variants(count: number, toS: number): number {
  const faults = faultsOf(semi);
  const fromMs = performance.now();
  for (let n = 0; n < count; n += 1) {
    const fault = faults[n % faults.length]!;
    const site = { tanksPsi: 60, tolerance: DASH_TOLERANCE };
    const twin = twinWith(semi, [[fault, ((n * 7) % 10) / 10]], site);
    drive(twin, referenceMoves(), toS);
  }
  return (performance.now() - fromMs) / 1000;
}

if (process.argv[2] !== 'cold') {
  console.log('\n  the twin, a reference run of 900 s; median and fastest of 15');
  for (const [name, rig] of Object.entries(rigs)) {
    const { network } = new Twin(rig).system;
    const all = Array.from({ length: 15 }, () => timed(rig));
    const ms = median(all);
    const times = (each: number) => Math.round((REFERENCE_S * 1000) / each).toLocaleString('en-GB');
    console.log(
      `  ${name.padEnd(14)} ${String(network.nodes.length).padStart(3)} places ${String(network.elements.length).padStart(4)} ways  ${ms.toFixed(0).padStart(5)} ms  ${times(ms).padStart(7)} × real time, ${times(Math.min(...all)).padStart(7)} at best  ${((ms * 1000) / network.elements.length).toFixed(0)} µs a way`,
    );
  }
  console.log(accuracy(1));
  console.log(`  at ${DASH_TOLERANCE} times the tolerance:`);
  console.log(accuracy(DASH_TOLERANCE));
  console.log(
    `  200 faults to the end of both holds: ${variants(200, HOLDS_OVER_S).toFixed(1)} s; on to the pop-out: ${variants(200, POPPED_OUT_S).toFixed(1)} s`,
  );
  // In a process of its own: nothing is compiled yet, as in a worker that has just been opened.
  const cold = execFileSync(process.execPath, ['--import', 'tsx', import.meta.filename, 'cold'], {
    encoding: 'utf8',
  });
  console.log(`  a cold first second: ${Number(cold).toFixed(0)} ms\n`);
} else {
  const fromMs = performance.now();
  const twin = new Twin(semi, { tanksPsi: 60 });
  twin.engine(1400);
  twin.dash('park valve', true);
  twin.advanceTo(1);
  console.log(performance.now() - fromMs);
}
