import type { CheckFact, LineFact, PartFact, Unit, VisitFact } from '@keen-bleed/contract';
import {
  clockAnswers,
  correctedMs,
  lineRecordOf,
  partRecordOf,
  visitKind,
  withLine,
  withPart,
  type NewFact,
  type VisitState,
} from '@keen-bleed/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useMe } from '../account/session';
import { keepPhotos } from '../photos/keepPhotos';
import { openLogs } from '../store/logs';
import { recordIn } from '../store/recordIn';
import { startVisit } from '../store/startVisit';
import { useLog } from '../store/useLog';

/** Photos that one fact carries at most: the newest. */
const MOST_PHOTOS = 8;

/** What is said of parts, lines and checks while somebody walks round. */
export type WalkFact =
  NewFact<PartFact> | NewFact<LineFact> | NewFact<CheckFact> | NewFact<VisitFact>;

/** A walk round one unit or a rig: the visit it is kept in on this device, and the units as they were found in it. */
export interface WalkRound {
  /** The units with what was found here and has not come back from the server yet. */
  units: readonly Unit[];
  visitId: string | null;
  state: VisitState | null;
  /** Keeps a fact, with photos that go with it. */
  say: (fact: WalkFact, photos?: readonly Blob[]) => Promise<boolean>;
  trouble: string | null;
}

/** The open visit of these units on this device, to be gone on with; a first word starts one. */
export function useWalkRound(
  units: readonly Unit[],
  rigId: string | null,
  reason: string,
): WalkRound {
  const me = useMe();
  const [visitId, setVisitId] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  // Two quick presses start one visit: the second waits for the first.
  const starting = useRef<Promise<string> | null>(null);
  const front = units[0]?.id ?? null;
  useEffect(() => {
    void openLogs(me).then((open) => {
      const own = open.find(
        ({ kind, header }) =>
          kind === 'visit' && header.subject.unitId === front && header.subject.rigId === rigId,
      );
      starting.current = null;
      setVisitId(own?.id ?? null);
    });
  }, [me, front, rigId]);
  const live = useLog<'visit', VisitState>(visitKind, visitId ?? '', me);
  const here = live === 'loading' || live === 'elsewhere' ? null : live;
  const found = useMemo(
    () => asFoundHere(units, here?.state ?? null, here?.facts ?? []),
    [units, here],
  );
  const say = async (fact: WalkFact, photos: readonly Blob[] = []): Promise<boolean> => {
    const [first, ...others] = units;
    if (!first) return false;
    try {
      starting.current ??= visitId
        ? Promise.resolve(visitId)
        : startVisit(me, { units: [first, ...others], rigId, reason });
      const id = await starting.current;
      setVisitId(id);
      const kept = await keepPhotos(id, photos);
      // What a part had stays beside what is new.
      const before = 'photos' in fact ? (fact.photos ?? []) : [];
      const named =
        kept.length > 0 ? { ...fact, photos: [...before, ...kept].slice(-MOST_PHOTOS) } : fact;
      // Open on the screen it is written as it stands there; read anew only where it is not yet.
      const problem =
        here?.isWritable && here.header.id === id
          ? await here.record(named)
          : await recordIn(me, id, named);
      setTrouble(problem);
      return problem === null;
    } catch {
      starting.current = null;
      setTrouble('This device could not keep that. Free some space on it, then try again.');
      return false;
    }
  };
  return { units: found, visitId, state: here?.state ?? null, say, trouble };
}

function asFoundHere(
  units: readonly Unit[],
  state: VisitState | null,
  facts: Parameters<typeof clockAnswers>[0],
): readonly Unit[] {
  if (!state) return units;
  const answers = clockAnswers(facts);
  return units.map((unit) => {
    const withParts = state.parts
      .filter(({ at }) => at.unitId === unit.id)
      .reduce(
        (before, fact) => ({
          ...before,
          ...withPart(
            before,
            partRecordOf(fact, Math.round(correctedMs(fact, answers.get(fact.lane)))),
          ),
        }),
        unit,
      );
    return state.lines
      .filter(({ at }) => at.unitId === unit.id)
      .reduce(
        (before, fact) => ({
          ...before,
          ...withLine(
            before,
            lineRecordOf(fact, Math.round(correctedMs(fact, answers.get(fact.lane)))),
          ),
        }),
        withParts,
      );
  });
}
