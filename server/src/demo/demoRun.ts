import type { RunFact, RunHeader, School } from '@keen-bleed/contract';
import {
  halfDivisionPsi,
  nearestReadingPsi,
  padNow,
  RunWalk,
  type About,
  settlingNow,
  type Did,
  type RunState,
} from '@keen-bleed/core';
import type { Truth } from './demoFleet';
import type { SeededRandom } from '../random/seededRandom';

/** What befalls one made-up run. */
export interface DemoRunPlan {
  truth: Truth;
  startedAtMs: number;
  note?: string | undefined;
  /** Told of the vehicle and the place before it began. */
  about?: About | undefined;
  /** Added once it was closed. */
  noteAfter?: string | undefined;
  cutShort?: string | undefined;
  /** Answers that are not what is usually found, by key. */
  found?: Readonly<Record<string, string>> | undefined;
}

/** A tremble of hand and eye, as a share of a half division. */
const EYE = 0.25;

/**
 * Walks a rig's procedure as a careful technician would, on a rig that truly is as `truth` says, and writes
 * down what they would have marked.
 */
export function demoRunFacts(
  header: RunHeader,
  plan: DemoRunPlan,
  random: SeededRandom,
): readonly RunFact[] {
  const half = halfDivisionPsi(header.made.unit.gauge);
  // Half of the technicians tap the lines the needle crosses, the others read at both ends.
  const tapsLines = random.next() < 0.5;
  const walk: RunWalk = new RunWalk(header, {
    startMs: plan.startedAtMs,
    lane: random.uuid(plan.startedAtMs),
    nextId: () => random.uuid(walk?.nowMs ?? plan.startedAtMs),
  });
  const mark = (psi: number) => {
    const pad = padNow(walk.state, walk.nowMs);
    if (!pad) return;
    walk.mark(
      pad.method === 'crossing' ? pad.proposedPsi : nearestReadingPsi(psi, header.made.unit.gauge),
    );
  };
  const seen = (psi: number) => psi + EYE * half * random.normal();
  const walkOn = () => (walk.nowMs += random.between(20_000, 70_000));

  if (plan.about) walk.add({ kind: 'about', ...plan.about });
  const looked = (): Did => {
    walkOn();
    walk.lookFor(plan.found ?? {});
    return 'done';
  };
  walk.through({
    ready: (_, step): Did => {
      walkOn();
      walk.ready(step.act.gauges[0], plan.found);
      return 'done';
    },
    marks: (_, step): Did => {
      walkOn();
      for (const spec of step.act.marks) {
        if (spec.at === 'passing' && spec !== step.act.marks[0]) {
          walk.nowMs += climbMs(walk.state, walk.nowMs, plan.truth) + 200 * random.normal();
        }
        mark(seen(levelOf(step.id, spec.key, plan.truth, header.made.ruleSet.school)));
      }
      return 'done';
    },
    look: looked,
    stop: looked,
    hold: (_, step): Did => {
      if (plan.cutShort) return 'stop';
      walkOn();
      const applied = step.id === 'applied-hold';
      const full = applied ? 108 : 120;
      const leak = applied
        ? (plan.truth.appliedLeakPsiPerMin ?? plan.truth.leakPsiPerMin + 0.3)
        : plan.truth.leakPsiPerMin;
      const startPsi = Math.min(plan.truth.cutOutPsi, full) - random.between(0, 2 * half);
      if (step.act.settle) {
        mark(seen(startPsi));
        walk.nowMs +=
          (settlingNow(walk.state, walk.nowMs)?.leftMs ?? 0) + random.between(500, 4_000);
      }
      const startMs = walk.nowMs;
      const fallenBy = (atMs: number) => ((atMs - startMs) / 60_000) * leak;
      mark(seen(startPsi));
      const endsMs = walk.state.hold?.endsAtMs ?? walk.nowMs;
      let tapped = 0;
      for (
        let pad = padNow(walk.state, walk.nowMs);
        tapsLines && pad;
        pad = padNow(walk.state, walk.nowMs)
      ) {
        const toFall = startPsi - pad.proposedPsi;
        const atMs = startMs + (toFall / leak) * 60_000;
        if (!(atMs > walk.nowMs && atMs < endsMs - 1_000)) break;
        walk.nowMs = atMs;
        mark(pad.proposedPsi);
        tapped += 1;
      }
      if (tapped > 1) {
        walk.nowMs = endsMs;
        walk.holdOver();
      } else {
        walk.nowMs = endsMs + 1_500;
        mark(seen(startPsi - fallenBy(walk.nowMs)));
      }
      if (plan.note && !applied) walk.add({ kind: 'note', stepId: step.id, text: plan.note });
      return 'done';
    },
  });
  walk
    .wait(15)
    .add(
      plan.cutShort
        ? { kind: 'close', how: 'incomplete', reason: plan.cutShort }
        : { kind: 'close', how: 'complete' },
    );
  if (plan.noteAfter) walk.wait(1_800).add({ kind: 'note', text: plan.noteAfter });
  return walk.facts;
}

/** Where the needle truly stands at a mark, by its step and key. */
function levelOf(stepId: string, key: string, truth: Truth, school: School): number {
  const {
    warningPsi = school === 'numbers' ? 75 : 63,
    popOutPsi = 36,
    cutOutPsi,
    cutInPsi,
  } = truth;
  const levels: Record<string, number> = {
    'cut-in/cut-in': cutInPsi,
    'charge/charged': 120,
    'coupling-supply/supply': 110,
    'trailer-supply/supply': 116,
    'warning/on': warningPsi,
    'pop-out/trailer': popOutPsi + 3,
    'pop-out/park': popOutPsi,
    'rebuild/off': warningPsi + 14,
    'reserve/after-eight': 74,
  };
  return levels[`${stepId}/${key}`] ?? cutOutPsi;
}

/** Time from the mark just made to the line that is waited for, at the true build-up. */
function climbMs(state: RunState, nowMs: number, truth: Truth): number {
  const from = state.marks.at(-1)?.readingPsi ?? 0;
  const to = padNow(state, nowMs)?.proposedPsi ?? from;
  return ((to - from) / 15) * truth.buildUpS * 1000;
}
