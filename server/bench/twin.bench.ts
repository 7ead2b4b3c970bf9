/* How fast and how true the twin is: a reference run of 900 s on three rigs, this version and the one before side by
   side, beside the same equations solved to a tolerance five hundred times tighter; 200 faults through the part of a
   run the dash shows; saving and going back; a cold start; and what a run shows of every fault. */
import { newUnitDraft, type RigUnderTest } from '@keen-bleed/core';
import type { Unit } from '@keen-bleed/contract';
import * as now from '@keen-bleed/core/twin';
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { faultsDoc } from '../src/docs/faultsDoc';

const {
  driveByTheBook,
  effectsOf,
  faultsOf,
  REFERENCE_S,
  referenceRoutine,
  RoutinePlayer,
  Twin,
  twinWith,
} = now;

/** The version before this one, by its commit: the last with the air as it was before it was held to metal. */
const BEFORE = '90c78a2';
const root = join(import.meta.dirname, '../..');

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
const TANKS = ['supply tank', 'primary tank', 'secondary tank', '#1 tank'];
const CHAMBERS = ['front left', 'rear left', '#1 left', 'rear left spring'];
const SAMPLES_PER_S = 60;

const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN;
const timed = (does: () => unknown): number => {
  const fromMs = performance.now();
  does();
  return performance.now() - fromMs;
};

/** One reference run, and how far it is from a tight one: this version's and the other's. */
interface Version {
  run: (rig: RigUnderTest) => void;
  sampled: (tolerance: number) => Sampled;
}
interface Sampled {
  all: Float64Array[];
  events: readonly { name: string; atS: number }[];
}
type Sampling = (
  tolerance: number,
  make: () => {
    advanceTo: (s: number) => void;
    psi: (place: string) => number;
    events: Sampled['events'];
  },
) => Sampled;

const sample: Sampling = (_, make) => {
  const run = make();
  const places = [...TANKS, ...CHAMBERS];
  const all = places.map(() => new Float64Array(REFERENCE_S * SAMPLES_PER_S));
  for (let i = 0; i < REFERENCE_S * SAMPLES_PER_S; i += 1) {
    run.advanceTo((i + 1) / SAMPLES_PER_S);
    places.forEach((place, j) => (all[j]![i] = run.psi(place)));
  }
  return { all, events: run.events };
};

const thisVersion: Version = {
  run: (rig) => driveByTheBook(new Twin(rig, { tanksPsi: 60 })),
  sampled: (tolerance) =>
    sample(tolerance, () => {
      const twin = new Twin(semi, { tanksPsi: 60, tolerance });
      const player = new RoutinePlayer(twin, referenceRoutine());
      return {
        advanceTo: (s) => player.advanceTo(s),
        psi: (place) => twin.psi(place),
        events: twin.events,
      };
    }),
};

/** What the version before has, as far as it is used here. */
interface Earlier {
  Twin: new (
    rig: RigUnderTest,
    site: { tanksPsi: number; tolerance?: number },
  ) => {
    advanceTo: (s: number) => void;
    psi: (place: string) => number;
    events: Sampled['events'];
  };
  referenceMoves: () => { atS: number; does: (twin: unknown) => void }[];
  drive: (twin: unknown, moves: unknown, toS: number) => void;
}

/** The version before, out of the repository; null where its commit is not there. */
async function versionBefore(): Promise<{ version: Version; end: () => void } | null> {
  const folder = mkdtempSync(join(tmpdir(), 'keen-bleed-before-'));
  const end = () => rmSync(folder, { recursive: true, force: true });
  try {
    const files = execFileSync('git', ['archive', BEFORE, 'core'], {
      cwd: root,
      maxBuffer: 1e9,
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    execFileSync('tar', ['x', '-C', folder], { input: files });
  } catch {
    end();
    return null;
  }
  mkdirSync(join(folder, 'server'));
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'));
  const before = (await import(join(folder, 'core/src/twin/index.ts'))) as unknown as Earlier;
  const version: Version = {
    run: (rig) =>
      before.drive(new before.Twin(rig, { tanksPsi: 60 }), before.referenceMoves(), REFERENCE_S),
    sampled: (tolerance) =>
      sample(tolerance, () => {
        const twin = new before.Twin(semi, { tanksPsi: 60, tolerance });
        const moves = before.referenceMoves();
        return {
          events: twin.events,
          psi: (place) => twin.psi(place),
          advanceTo: (s) => {
            for (let move = moves[0]; move && move.atS <= s; move = moves[0]) {
              twin.advanceTo(move.atS);
              move.does(twin);
              moves.shift();
            }
            twin.advanceTo(s);
          },
        };
      }),
  };
  return { version, end };
}

/** Of the usual tolerance. */
const TIGHT = 0.002;

function accuracy(version: Version, tolerance: number): string {
  const ours = version.sampled(tolerance);
  const tight = version.sampled(TIGHT);
  let tank = 0;
  let tankSquares = 0;
  let chamber = 0;
  ours.all.forEach((values, j) =>
    values.forEach((psi, i) => {
      const off = Math.abs(psi - (tight.all[j]?.[i] ?? NaN));
      if (j < TANKS.length) {
        tank = Math.max(tank, off);
        tankSquares += off * off;
      } else chamber = Math.max(chamber, off);
    }),
  );
  const rms = Math.sqrt(tankSquares / (TANKS.length * REFERENCE_S * SAMPLES_PER_S));
  const same =
    ours.events.length === tight.events.length &&
    ours.events.every((event, i) => event.name === tight.events[i]?.name);
  const late = same
    ? Math.max(
        ...ours.events.map((event, i) => Math.abs(event.atS - (tight.events[i]?.atS ?? NaN))),
      )
    : NaN;
  return `tanks ${tank.toFixed(3)} psi at worst, ${rms.toFixed(4)} RMS; chambers ${chamber.toFixed(2)} psi at worst; ${ours.events.length} events within ${(late * 1000).toFixed(1)} ms`;
}

/** So far the gauges of the dash are read: built up, pumped to the governor's cut-in, both holds. */
const HOLDS_OVER_S = 604;
/** And so far its lamps and knobs speak: fanned down past the warning to the pop-out. */
const POPPED_OUT_S = 660;
/** Readings of a dash are good to a psi: steps this much coarser are less than a fifth of that off. */
const DASH_TOLERANCE = 5;

function variants(count: number, toS: number): number {
  const faults = faultsOf(semi);
  return (
    timed(() => {
      for (let n = 0; n < count; n += 1) {
        const fault = faults[n % faults.length]!;
        const site = { tanksPsi: 60, tolerance: DASH_TOLERANCE };
        driveByTheBook(twinWith(semi, [[fault, ((n * 7) % 10) / 10]], site), toS);
      }
    }) / 1000
  );
}

/** Saving a moment and going back to it, with another fault each time, beside copying its state. */
function goingBack(): string {
  const twin = new Twin(semi, { tanksPsi: 110 });
  twin.dash('park valve', true);
  twin.advanceTo(30);
  const faults = faultsOf(semi);
  const moment = twin.save();
  const each = (does: (n: number) => unknown) => {
    const rounds = Array.from({ length: 20 }, () =>
      timed(() => {
        for (let n = 0; n < 200; n += 1) does(n);
      }),
    );
    return (median(rounds) / 200) * 1000;
  };
  let sink = 0;
  const copy = each(() => (sink += Float64Array.from(twin.run.state).length));
  const save = each(() => (sink += twin.save().run.arrays.length));
  const change = (n: number) => twin.apply(effectsOf(faults[n % faults.length]!, 0.5));
  const back = each((n) => {
    change(n);
    twin.restore(moment);
  });
  const alone = each((n) => {
    change(n);
  });
  twin.restore(moment);
  return `a moment: saved in ${save.toFixed(1)} µs, gone back to in ${Math.max(0, back - alone).toFixed(1)} µs after a fault; copying its state ${copy.toFixed(1)} µs${sink < 0 ? '!' : ''}`;
}

if (process.argv[2] !== 'cold') {
  const before = await versionBefore();
  if (!before) console.log(`  (commit ${BEFORE} is not in this clone: nothing to compare with)`);
  console.log(
    '\n  the twin, a reference run of 900 s; in turns with the version before, median of 15',
  );
  for (const [name, rig] of Object.entries(rigs)) {
    const { network } = new Twin(rig).system;
    const ours: number[] = [];
    const theirs: number[] = [];
    for (let n = 0; n < 18; n += 1) {
      const ms = timed(() => thisVersion.run(rig));
      const other = before ? timed(() => before.version.run(rig)) : NaN;
      // The first runs are compiled as they go.
      if (n >= 3) {
        ours.push(ms);
        theirs.push(other);
      }
    }
    const times = (ms: number) => Math.round((REFERENCE_S * 1000) / ms).toLocaleString('en-GB');
    console.log(
      `  ${name.padEnd(14)} ${String(network.nodes.length).padStart(3)} places ${String(network.elements.length).padStart(4)} ways  now ${median(ours).toFixed(0).padStart(4)} ms (${times(median(ours))} × real time)  before ${median(theirs).toFixed(0).padStart(4)} ms  speed now/before ${(median(theirs) / median(ours)).toFixed(2)}`,
    );
  }
  console.log(
    '  against the tight solution of the same equations (proves the solver, not the physics):',
  );
  console.log(`    now     ${accuracy(thisVersion, 1)}`);
  if (before) console.log(`    before  ${accuracy(before.version, 1)}`);
  console.log(
    `    now, at ${DASH_TOLERANCE} times the tolerance: ${accuracy(thisVersion, DASH_TOLERANCE)}`,
  );
  console.log(
    `  200 faults to the end of both holds: ${variants(200, HOLDS_OVER_S).toFixed(1)} s; on to the pop-out: ${variants(200, POPPED_OUT_S).toFixed(1)} s`,
  );
  console.log(`  ${goingBack()}`);
  const fresh = () => ({ unit: { ...semi.unit }, towed: semi.towed.map((each) => ({ ...each })) });
  console.log(
    `  a rig plumbed like one that is known: ${median(Array.from({ length: 15 }, () => timed(() => new Twin(fresh())))).toFixed(1)} ms; the same one again: ${median(Array.from({ length: 15 }, () => timed(() => new Twin(semi)))).toFixed(1)} ms`,
  );
  // In a process of its own: nothing is compiled yet, as in a worker that has just been opened.
  const cold = execFileSync(process.execPath, ['--import', 'tsx', import.meta.filename, 'cold'], {
    encoding: 'utf8',
  });
  console.log(`  a cold first second: ${Number(cold).toFixed(0)} ms\n`);
  console.log(faultsDoc());
  before?.end();
} else {
  console.log(
    timed(() => {
      const twin = new Twin(semi, { tanksPsi: 60 });
      twin.engine(1400);
      twin.dash('park valve', true);
      twin.advanceTo(1);
    }),
  );
}
