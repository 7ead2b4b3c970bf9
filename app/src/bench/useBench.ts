import type { Unit } from '@keen-bleed/contract';
import { clockAnswers, correctedMs, rigKey, type RigUnderTest } from '@keen-bleed/core';
import { valvesOf, type CheckAnswer, type Valve } from '@keen-bleed/core/checks';
import { useMemo } from 'react';
import useSWRImmutable from 'swr/immutable';
import { useChecks } from '../air/useChecks';
import { inDrawing } from '../air/useDrawn';
import type { WalkRound } from '../parts/useWalkRound';
import { useFoundOfAll } from '../suspects/useRigEvidence';

/** What a check gave at one time. */
export interface Reading {
  atMs: number;
  answer: CheckAnswer;
}

/** The valves of a rig, and what was read of them. */
export interface Bench {
  valves: readonly Valve[];
  /** By check: what it gave, the newest first. */
  readings: ReadonlyMap<string, readonly Reading[]>;
  ready: boolean;
}

export function useBench(units: readonly Unit[], rig: RigUnderTest, walk: WalkRound): Bench {
  const checks = useChecks(rig);
  const valves = useMemo(() => valvesOf(rig, checks), [rig, checks]);
  const found = useFoundOfAll(units);
  const readings = useMemo(() => {
    const own = new Set(valves.flatMap((valve) => valve.checks.map(({ id }) => id)));
    const known = walk.state?.known ?? new Map<string, unknown>();
    const entries = walk.state?.entries ?? [];
    const answers = clockAnswers(entries);
    const here = entries.flatMap((entry) =>
      entry.kind === 'check' && own.has(entry.checkId)
        ? [
            {
              checkId: entry.checkId,
              atMs: Math.round(correctedMs(entry, answers.get(entry.lane))),
              answer: entry.answer,
            },
          ]
        : [],
    );
    const there = found.all
      .filter(({ id }) => !known.has(id))
      .flatMap(({ evidence, atMs }) =>
        evidence?.kind === 'check' && own.has(evidence.checkId)
          ? [{ checkId: evidence.checkId, atMs, answer: evidence.answer }]
          : [],
      );
    const of = new Map<string, Reading[]>();
    for (const { checkId, atMs, answer } of [...here, ...there].sort((a, b) => b.atMs - a.atMs)) {
      of.set(checkId, [...(of.get(checkId) ?? []), { atMs, answer }]);
    }
    return of;
  }, [found.all, valves, walk.state]);
  return { valves, readings, ready: found.ready && valves.length > 0 };
}

/** What a sound rig of this description gives to the checks of one valve, from its twin; undefined until it is worked out. */
export function useSoundAnswers(
  rig: RigUnderTest,
  valve: Valve,
): Readonly<Record<string, CheckAnswer>> | undefined {
  const ids = valve.checks.map(({ id }) => id);
  const { data } = useSWRImmutable(`sound ${ids.join()} ${rigKey(rig)}`, () =>
    inDrawing((drawing) => drawing.answers(rig, ids)),
  );
  return data;
}
