import type { OpenRun, RunEvent } from '@keen-bleed/contract';
import {
  halfDivisionPsi,
  markAt,
  nearestReadingPsi,
  padNow,
  readRun,
  itemsOf,
  type Step,
  type RunState,
} from '@keen-bleed/core';
import type { Truth } from './demoFleet';
import type { SeededRandom } from './seededRandom';

/** What befalls one made-up run. */
export interface DemoRunPlan {
  truth: Truth;
  startedAtMs: number;
  note?: string | undefined;
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
export function demoRunEvents(
  header: Pick<OpenRun, 'unit' | 'towed' | 'ruleSet' | 'leftOut'>,
  plan: DemoRunPlan,
  random: SeededRandom,
): RunEvent[] {
  const { unit } = header;
  const events: RunEvent[] = [];
  let nowMs = plan.startedAtMs;
  let state = readRun(header, events);
  const half = halfDivisionPsi(unit.gauge);
  // Half of the technicians tap the lines the needle crosses, the others read at both ends.
  const tapsLines = random.next() < 0.5;

  const add = (event: Record<string, unknown> & { kind: RunEvent['kind'] }) => {
    events.push({
      id: random.uuid(nowMs),
      seq: events.length + 1,
      atMs: Math.round(nowMs),
      ...event,
    } as RunEvent);
    state = readRun(header, events);
  };
  const mark = (psi: number) => {
    const pad = padNow(state, nowMs);
    if (!pad || !state.step) return;
    const readingPsi =
      pad.method === 'crossing' ? pad.proposedPsi : nearestReadingPsi(psi, unit.gauge);
    const { spec, method } = markAt(pad, readingPsi, unit.gauge);
    add({
      kind: 'mark',
      stepId: state.step.id,
      key: spec.key,
      readingPsi,
      resolutionPsi: half,
      method,
    });
  };
  const seen = (psi: number) => psi + EYE * half * random.normal();

  while (state.step) {
    const { step } = state;
    if (plan.cutShort && step.act.kind === 'hold') break;
    nowMs += random.between(20_000, 70_000);
    switch (step.act.kind) {
      case 'ready':
        if (itemsOf(step).length > 0) {
          add({ kind: 'look', stepId: step.id, answers: answersOf(step, plan.found) });
        }
        add({
          kind: 'ready',
          stepId: step.id,
          gauge: step.act.gauges[0] ?? 'primary',
        });
        break;
      case 'marks':
        for (const spec of step.act.marks) {
          if (spec.at === 'passing' && spec !== step.act.marks[0]) {
            nowMs += climbMs(state, nowMs, plan.truth) + 200 * random.normal();
          }
          mark(seen(levelOf(step.id, spec.key, plan.truth)));
        }
        break;
      case 'look':
        add({ kind: 'look', stepId: step.id, answers: answersOf(step, plan.found) });
        break;
      case 'hold': {
        const applied = step.id === 'applied-hold';
        const full = applied ? 108 : 120;
        const leak = applied
          ? (plan.truth.appliedLeakPsiPerMin ?? plan.truth.leakPsiPerMin + 0.3)
          : plan.truth.leakPsiPerMin;
        const startPsi = Math.min(plan.truth.cutOutPsi, full) - random.between(0, 2 * half);
        const startMs = nowMs;
        const fallenBy = (atMs: number) => ((atMs - startMs) / 60_000) * leak;
        mark(seen(startPsi));
        const endsMs = state.hold?.endsAtMs ?? nowMs;
        let tapped = 0;
        for (let pad = padNow(state, nowMs); tapsLines && pad; pad = padNow(state, nowMs)) {
          const toFall = startPsi - pad.proposedPsi;
          const atMs = startMs + (toFall / leak) * 60_000;
          if (!(atMs > nowMs && atMs < endsMs - 1_000)) break;
          nowMs = atMs;
          mark(pad.proposedPsi);
          tapped += 1;
        }
        if (tapped > 1) {
          nowMs = endsMs;
          add({ kind: 'hold-over', stepId: step.id });
        } else {
          nowMs = endsMs + 1_500;
          mark(seen(startPsi - fallenBy(nowMs)));
        }
        if (plan.note && !applied) add({ kind: 'note', stepId: step.id, text: plan.note });
        break;
      }
    }
  }
  nowMs += 15_000;
  add(
    plan.cutShort
      ? { kind: 'close', how: 'incomplete', reason: plan.cutShort }
      : { kind: 'close', how: 'complete' },
  );
  return events;
}

function answersOf(
  step: Step,
  found: Readonly<Record<string, string>> = {},
): Record<string, string> {
  return Object.fromEntries(
    itemsOf(step).map((item) => {
      const other = item.options.find((option) => option.value === found[item.key]);
      return [item.key, (other ?? item.options[0])?.value ?? ''];
    }),
  );
}

/** Where the needle truly stands at a mark, by its step and key. */
function levelOf(stepId: string, key: string, truth: Truth): number {
  const { warningPsi = 63, popOutPsi = 36, cutOutPsi, cutInPsi } = truth;
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
