import type { DrainedThing, Unit, WeatherFact } from '@keen-bleed/contract';
import {
  clockAnswers,
  correctedMs,
  freeAirScfm,
  totalTankVolumeIn3,
  type RigUnderTest,
} from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import { amountOfGrade, type Drained } from '@keen-bleed/core/water';
import { useMemo } from 'react';
import { useChecks } from '../air/useChecks';
import type { WalkRound } from '../parts/useWalkRound';
import { useFoundOfAll, useRigEvidence } from '../suspects/useRigEvidence';

/** A tank and its drain, as the catalogue has it. */
export interface Drain {
  check: Check;
  place: string;
  /** The tank as it is called. */
  title: string;
}

export type Weather = Pick<
  WeatherFact,
  'airC' | 'humidityPct' | 'lowC' | 'engineHours' | 'loadedShare'
>;

/** What is known of a rig's water. */
export interface Water {
  drains: readonly Drain[];
  /** The newest round: by place, what was last said of it. */
  round: ReadonlyMap<string, Drained>;
  /** When that round was; null where there was none. */
  roundMs: number | null;
  /** The same where it goes on still: a new day begins a new round. */
  now: ReadonlyMap<string, Drained>;
  /** When its tanks were drained before this round; null where nobody wrote it down. */
  beforeMs: number | null;
  weather: (Weather & { atMs: number }) | null;
  /** Free air the compressor delivers, scfm: by the newest run's build-up, or a usual one. */
  scfm: number;
  scfmByRun: boolean;
  ready: boolean;
}

/** A round lasts no longer than this: what was drained before is the one before, ms. */
export const ROUND_MS = 6 * 3_600_000;
/** A usual compressor at a fast idle [common practice, no source]. */
const USUAL_SCFM = 14;
const BUILD_UP_PSI = 15;

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const NOTHING: ReadonlyMap<string, Drained> = new Map();

interface Said {
  place: string;
  drained: Drained;
}

export function useWater(
  units: readonly Unit[],
  rig: RigUnderTest,
  walk: WalkRound,
  nowMs: number,
): Water {
  const checks = useChecks(rig);
  const drains = useMemo(
    () =>
      checks.flatMap((check): Drain[] =>
        check.doing.does === 'drain'
          ? [
              {
                check,
                place: check.doing.place,
                title: capital(check.title.replace(/^Drain the /, '').replace(/ and look$/, '')),
              },
            ]
          : [],
      ),
    [checks],
  );
  const found = useFoundOfAll(units);
  const { evidence, ready } = useRigEvidence(units, walk);
  const said = useMemo(() => {
    const placeOf = new Map(drains.map(({ check, place }) => [check.id, place]));
    const known = walk.state?.known ?? new Map<string, unknown>();
    const entries = walk.state?.entries ?? [];
    const answers = clockAnswers(entries);
    const one = (
      checkId: string,
      answer: { kind: string; grade?: string },
      water:
        | {
            ml?: number;
            mist?: boolean;
            what?: readonly DrainedThing[];
            stuck?: boolean;
            with?: readonly string[];
          }
        | undefined,
      atMs: number,
    ): Said[] => {
      const place = placeOf.get(checkId);
      const amount =
        answer.kind === 'grade' ? amountOfGrade(answer.grade ?? '', water?.mist ?? false) : null;
      if (place === undefined || amount === null) return [];
      const { ml = null, what = [], stuck = false, with: shared = [] } = water ?? {};
      return [{ place, drained: { place, amount, ml, what, stuck, with: shared, atMs } }];
    };
    const here = entries.flatMap((entry) =>
      entry.kind === 'check'
        ? one(
            entry.checkId,
            entry.answer,
            entry.water,
            Math.round(correctedMs(entry, answers.get(entry.lane))),
          )
        : [],
    );
    const there = found.all
      .filter(({ id }) => !known.has(id))
      .flatMap(({ evidence: of, atMs }) =>
        of?.kind === 'check' ? one(of.checkId, of.answer, of.water, atMs) : [],
      );
    const weathers = [
      ...entries.flatMap((entry) =>
        entry.kind === 'weather'
          ? [{ ...entry, atMs: Math.round(correctedMs(entry, answers.get(entry.lane))) }]
          : [],
      ),
      ...found.all
        .filter(({ id }) => !known.has(id))
        .flatMap(({ evidence: of, atMs }) => (of?.kind === 'weather' ? [{ ...of, atMs }] : [])),
    ].sort((a, b) => b.atMs - a.atMs);
    return {
      all: [...here, ...there].sort((a, b) => a.drained.atMs - b.drained.atMs),
      weather: weathers[0] ?? null,
    };
  }, [drains, found.all, walk.state]);
  const buildUp = useMemo(() => {
    const run = evidence.find((each) => each.kind === 'run');
    return run?.kind === 'run' ? (run.figures['build-up'] ?? null) : null;
  }, [evidence]);
  const scfm =
    buildUp !== null && buildUp > 1
      ? freeAirScfm(totalTankVolumeIn3(rig.unit.tanks), (BUILD_UP_PSI * 60) / buildUp)
      : USUAL_SCFM;
  return useMemo(() => {
    const roundMs = said.all.at(-1)?.drained.atMs ?? null;
    const isOfRound = ({ drained }: Said) => drained.atMs > (roundMs ?? 0) - ROUND_MS;
    const before = said.all.filter((each) => !isOfRound(each)).at(-1);
    const round = new Map(said.all.filter(isOfRound).map(({ place, drained }) => [place, drained]));
    const goesOn = roundMs !== null && roundMs > nowMs - ROUND_MS;
    return {
      drains,
      round,
      roundMs,
      now: goesOn ? round : NOTHING,
      beforeMs: before?.drained.atMs ?? null,
      weather: said.weather,
      scfm,
      scfmByRun: buildUp !== null,
      ready: ready && found.ready,
    };
  }, [buildUp, drains, found.ready, nowMs, ready, said, scfm]);
}
