import type { FoundAtParts, GradesTaught, Unit } from '@keen-bleed/contract';
import {
  clockAnswers,
  correctedMs,
  halfDivisionPsi,
  readingUncertaintyPsi,
  rigKey,
  type RigUnderTest,
  type VisitState,
} from '@keen-bleed/core';
import {
  beforeAfter,
  heardOf,
  huntOf,
  jointsOf,
  type Budget,
  type Heard,
  type Hold,
  type HuntEvent,
  type Joint,
  type Wetted,
} from '@keen-bleed/core/hunt';
import type { Check, CheckAnswer } from '@keen-bleed/core/checks';
import * as Comlink from 'comlink';
import { startTransition, useEffect, useMemo, useRef, useState } from 'react';
import useSWRImmutable from 'swr/immutable';
import { useMe } from '../account/session';
import type { Drawing } from '../air/drawing';
import { inDrawing } from '../air/useDrawn';
import { useChecks } from '../air/useChecks';
import { useGrades } from '../data/useRecords';
import type { WalkRound } from '../parts/useWalkRound';
import { useFoundOfAll, useRigEvidence } from '../suspects/useRigEvidence';

const NONE: readonly Hold[] = [];
const NO_PLACES: readonly string[] = [];
const NO_GRADES: GradesTaught = [];

/** Where a hunt stands: joints in walking order, what was found at them, holds, and the budget once it is reckoned. */
export interface Hunt {
  joints: readonly Joint[];
  /** Walks with an open ear, one a state. */
  walks: readonly Check[];
  /** By walk: what was last heard on it. */
  heard: ReadonlyMap<string, string>;
  /** By place: what was last said of it. */
  last: ReadonlyMap<string, Wetted>;
  holds: readonly Hold[];
  budget: Budget | null;
  /** Places without air however the rig is held: of them nothing is asked. */
  airless: readonly string[];
  /** The budget cannot be reckoned on this device. */
  failed: boolean;
  ready: boolean;
  /** What a new hold says, with the one before it, of what was mended in between. */
  teaches: (held: Omit<NewHold, 'readToPsi' | 'kind'>) => GradesTaught;
}

type NewHold = Extract<HuntEvent, { kind: 'held' }>;

/** What was found longer ago than this is another hunt's, ms. */
const HUNT_MS = 30 * 86_400_000;

export const sectionOf = ({ pass, unit }: Pick<Joint, 'pass' | 'unit'>) => `${pass} ${unit}`;

/** A leak hunt on a rig: from what was wetted, mended and held on any device, and the holds of its newest run. */
export function useHunt(
  units: readonly Unit[],
  rig: RigUnderTest,
  walk: WalkRound,
  nowMs: number,
): Hunt {
  const me = useMe();
  const checks = useChecks(rig);
  const joints = useMemo(() => jointsOf(checks), [checks]);
  const walks = useMemo(() => checks.filter(isListened), [checks]);
  const found = useFoundOfAll(units);
  const { evidence, ready } = useRigEvidence(units, walk);
  const readToPsi = readingUncertaintyPsi(halfDivisionPsi(rig.unit.gauge));
  const events = useMemo(() => {
    const placeOf = new Map(joints.map(({ checkId, place }) => [checkId, place]));
    const walkOf = new Map(walks.map((check) => [check.id, check]));
    const at = { placeOf, walkOf };
    const known = walk.state?.known ?? new Map<string, unknown>();
    return [
      ...ofVisit(walk.state, at, readToPsi),
      ...ofFound(
        found.all.filter(({ id, atMs }) => !known.has(id) && atMs > nowMs - HUNT_MS),
        at,
        readToPsi,
      ),
    ];
  }, [found.all, joints, nowMs, readToPsi, walk.state, walks]);
  const ofRun = useMemo(() => holdsOfRun(evidence), [evidence]);
  const grades = useGrades();
  const table = useSWRImmutable(`seen ${rigKey(rig)}`, () =>
    inDrawing((drawing) => drawing.seen(rig)),
  );
  const story = useMemo(() => huntOf(events), [events]);
  const last = useMemo(() => new Map(story.wetted.map((each) => [each.place, each])), [story]);
  const [budget, setBudget] = useState<Budget | null>(null);
  const [failed, setFailed] = useState(false);
  const thread = useThread();
  const soapMisses = me.senses?.soapMisses;
  const ears = useMemo(() => {
    const { missed, imagined, heardQuietScfm } = me.senses ?? {};
    return missed === undefined || imagined === undefined || heardQuietScfm === undefined
      ? null
      : { missed, imagined, heardQuietScfm };
  }, [me.senses]);
  const heard = useMemo(
    () => lastHeard(walks, walk.state, found.all),
    [found.all, walk.state, walks],
  );
  useEffect(() => {
    if (!table.data || joints.length === 0) return;
    let isNewest = true;
    const asked = {
      table: table.data,
      joints: joints
        .filter(({ place }) => !table.data?.airless.includes(place))
        .map((joint) => ({ place: joint.place, section: sectionOf(joint) })),
      events,
      ofRun,
      taught: grades.data ?? NO_GRADES,
      ...(soapMisses === undefined ? {} : { soapMisses }),
      ...(ears ? { ears } : {}),
    };
    thread.current
      ?.budget(asked)
      .then((told) => {
        if (!isNewest) return;
        // A touch on the next joint does not wait for it.
        startTransition(() => {
          setBudget(told);
          setFailed(false);
        });
      })
      .catch(() => isNewest && setFailed(true));
    return () => {
      isNewest = false;
    };
  }, [ears, events, grades.data, joints, ofRun, soapMisses, table.data, thread]);
  return {
    joints,
    walks,
    heard,
    last,
    holds: useMemo(() => [...ofRun, ...story.holds], [ofRun, story.holds]),
    budget,
    airless: table.data?.airless ?? NO_PLACES,
    failed: failed || table.error !== undefined,
    ready: ready && found.ready && joints.length > 0,
    teaches: (held) => {
      if (!table.data) return [];
      const all = huntOf([...events, { kind: 'held', readToPsi, ...held }]);
      const own = all.holds.filter(
        ({ state, needle }) => state === held.state && needle === held.needle,
      );
      return beforeAfter(table.data, { wetted: all.wetted, holds: own.slice(-2) });
    },
  };
}

/** A thread that is kept while a hunt is on the screen: every mark is weighed in it. */
function useThread() {
  const thread = useRef<Comlink.Remote<Drawing> | null>(null);
  useEffect(() => {
    const worker = new Worker(new URL('../workers/drawing.worker', window.location.href));
    thread.current = Comlink.wrap<Drawing>(worker);
    return () => {
      thread.current = null;
      worker.terminate();
    };
  }, []);
  return thread;
}

/** By walk: the words of what was last heard on it. */
function lastHeard(
  walks: readonly Check[],
  state: VisitState | null,
  found: FoundAtParts,
): ReadonlyMap<string, string> {
  const own = new Set(walks.map(({ id }) => id));
  const known = state?.known ?? new Map<string, unknown>();
  const of = new Map<string, string>();
  // What the server has comes first, the oldest of it before the rest: the newest stands.
  for (const { id, evidence, said } of [...found].sort((a, b) => a.atMs - b.atMs)) {
    if (evidence?.kind === 'check' && own.has(evidence.checkId) && !known.has(id)) {
      of.set(evidence.checkId, said.replace(/^[^:]*: /, ''));
    }
  }
  for (const entry of state?.entries ?? []) {
    if (entry.kind === 'check' && own.has(entry.checkId)) of.set(entry.checkId, entry.said);
  }
  return of;
}

/** Joints by the check that wets them, and walks with an open ear. */
interface Places {
  placeOf: ReadonlyMap<string, string>;
  walkOf: ReadonlyMap<string, Check>;
}

/** In the states of the passes: with red pulled and with the hand valve on nothing else comes under air. */
const LISTENED: ReadonlySet<string> = new Set(['parked', 'released', 'applied']);
const isListened = ({ doing, state }: Check) =>
  doing.does === 'walk' && doing.of === 'air' && LISTENED.has(state.id);

/** What a check is to a hunt: a joint that was wetted, or a walk with an open ear. */
function ofCheck(
  { placeOf, walkOf }: Places,
  checkId: string,
  answer: CheckAnswer,
  atMs: number,
): HuntEvent[] {
  const place = placeOf.get(checkId);
  if (place !== undefined && answer.kind === 'grade') {
    return [{ kind: 'wet', place, grade: answer.grade, atMs }];
  }
  const walk = walkOf.get(checkId);
  const heard: Heard | null = walk ? heardOf(walk, answer, atMs) : null;
  return heard ? [{ kind: 'heard', ...heard }] : [];
}

function ofVisit(state: VisitState | null, at: Places, readToPsi: number): HuntEvent[] {
  const entries = state?.entries ?? [];
  const answers = clockAnswers(entries);
  return entries.flatMap((entry): HuntEvent[] => {
    const atMs = Math.round(correctedMs(entry, answers.get(entry.lane)));
    switch (entry.kind) {
      case 'check':
        return ofCheck(at, entry.checkId, entry.answer, atMs);
      case 'mended': {
        const place = at.placeOf.get(entry.checkId);
        return place === undefined ? [] : [{ kind: 'mended', place, atMs }];
      }
      case 'held': {
        const { state: inState, needle, fromPsi, toPsi, seconds } = entry;
        return [{ kind: 'held', state: inState, needle, fromPsi, toPsi, seconds, readToPsi, atMs }];
      }
      default:
        return [];
    }
  });
}

function ofFound(found: FoundAtParts, at: Places, readToPsi: number): HuntEvent[] {
  return found.flatMap(({ evidence, atMs }): HuntEvent[] => {
    switch (evidence?.kind) {
      case 'check':
        return ofCheck(at, evidence.checkId, evidence.answer, atMs);
      case 'mended': {
        const place = at.placeOf.get(evidence.checkId);
        return place === undefined ? [] : [{ kind: 'mended', place, atMs }];
      }
      case 'held': {
        const { state, needle, fromPsi, toPsi, seconds } = evidence;
        return [{ kind: 'held', state, needle, fromPsi, toPsi, seconds, readToPsi, atMs }];
      }
      default:
        return [];
    }
  });
}

/** The holds that a run made: released, and with the pedal down. */
function holdsOfRun(evidence: ReturnType<typeof useRigEvidence>['evidence']): readonly Hold[] {
  const run = evidence.find((each) => each.kind === 'run');
  if (run?.kind !== 'run') return NONE;
  return (['static', 'applied'] as const).flatMap((hold) =>
    (['primary', 'secondary'] as const).flatMap((needle): Hold[] => {
      const psiPerMin = run.figures[`${hold} ${needle}`];
      if (psiPerMin === undefined) return [];
      return [
        {
          state: hold === 'static' ? 'released' : 'applied',
          needle,
          psiPerMin,
          deviation: run.doubt?.[`${hold} ${needle}`] ?? 0.5,
          atMs: run.atMs,
        },
      ];
    }),
  );
}
