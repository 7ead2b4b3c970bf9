import type { HeldNeedle, HeldState } from '@keen-bleed/contract';
import type { Hold, Wetted } from './budget';
import { isLeakGrade, type BeforeAfter, type LeakGrade } from './grades';
import type { Heard } from './heard';
import type { SeenTable } from './seenTable';

/** What was done in a hunt, in the order of its times. */
export type HuntEvent =
  | { kind: 'wet'; place: string; grade: string; atMs: number }
  | { kind: 'mended'; place: string; atMs: number }
  | ({ kind: 'heard' } & Heard)
  | {
      kind: 'held';
      state: HeldState;
      needle: HeldNeedle;
      fromPsi: number;
      toPsi: number;
      seconds: number;
      /** Each reading is right within so much, psi: one standard deviation. */
      readToPsi: number;
      atMs: number;
    };

/** Two readings by one eye on one needle are off from each other by at least so much, psi. */
const LEAST_READ_PSI = 0.1;

/**
 * What a hunt came to: joints by what was last seen of them, leaks that were mended beside, and holds.
 *
 * A joint graded anew without a mend is what was said last; one that was wetted again after a mend is two stories: the
 * leak that was mended, and what it is now.
 */
export function huntOf(events: readonly HuntEvent[]): {
  wetted: Wetted[];
  holds: Hold[];
  heard: Heard[];
} {
  const inOrder = [...events].sort((a, b) => a.atMs - b.atMs);
  const open = new Map<string, Wetted>();
  const over: Wetted[] = [];
  const holds: Hold[] = [];
  const heard: Heard[] = [];
  for (const event of inOrder) {
    if (event.kind === 'held') {
      const minutes = event.seconds / 60;
      holds.push({
        state: event.state,
        needle: event.needle,
        psiPerMin: (event.fromPsi - event.toPsi) / minutes,
        deviation: (Math.SQRT2 * Math.max(LEAST_READ_PSI, event.readToPsi)) / minutes,
        atMs: event.atMs,
      });
      continue;
    }
    if (event.kind === 'heard') {
      const { place, among, atMs } = event;
      heard.push({ place, among, atMs });
      continue;
    }
    const before = open.get(event.place);
    if (event.kind === 'mended') {
      if (before && before.grade !== 'dry' && before.mendedAtMs === null) {
        open.set(event.place, { ...before, mendedAtMs: event.atMs });
      }
      continue;
    }
    if (event.grade !== 'dry' && !isLeakGrade(event.grade)) continue;
    if (before?.mendedAtMs) over.push(before);
    open.set(event.place, {
      place: event.place,
      grade: event.grade,
      atMs: event.atMs,
      mendedAtMs: null,
      times:
        before?.grade === event.grade && before.mendedAtMs === null ? (before.times ?? 1) + 1 : 1,
    });
  }
  return { wetted: [...over, ...open.values()], holds, heard };
}

/**
 * Leaks that were mended alone between two holds of the same needle in the same state: what they lost, by both holds. A
 * shop's grades are learnt from these.
 */
export function beforeAfter(
  table: SeenTable,
  { wetted, holds }: { wetted: readonly Wetted[]; holds: readonly Hold[] },
): BeforeAfter[] {
  const sorted = [...holds].sort((a, b) => a.atMs - b.atMs);
  return table.rows.flatMap(({ state, needle }, index) => {
    const of = sorted.filter((each) => each.state === state && each.needle === needle);
    return of.slice(1).flatMap((after, n): BeforeAfter[] => {
      const before = of[n]!;
      const between = wetted.filter(
        ({ mendedAtMs, place }) =>
          mendedAtMs !== null &&
          mendedAtMs > before.atMs &&
          mendedAtMs <= after.atMs &&
          (table.falls[place]?.[index] ?? 0) > 0.5,
      );
      const [only] = between;
      if (between.length !== 1 || !only || only.grade === 'dry') return [];
      // By the twin: where two tanks feed it, this needle shows a part of it.
      const scfm = (psiPerMin: number) => psiPerMin / table.falls[only.place]![index]!;
      return [
        {
          grade: only.grade satisfies LeakGrade,
          scfm: scfm(before.psiPerMin - after.psiPerMin),
          deviation: scfm(Math.hypot(before.deviation, after.deviation)),
        },
      ];
    });
  });
}
