import type { JobHeader, PartData, Unit } from '@keen-bleed/contract';
import { partTitle } from '../rig/partList';
import { wantsOf } from './match';
import { sayReading } from './retestOutcome';
import { holdsUntilRetested } from './retests';
import type { JobState } from './jobState';
import { measureWords, repairWords, type Station } from './words';

/** A job as lists, the yard and the board need it; follows from its facts. */
export interface JobBoard {
  station: Station;
  /** What it is about now, in a line. */
  line: string;
  /** Why its units may not leave, each in words; empty where it holds nothing. */
  holds: string[];
  /** The units it holds or is about. */
  unitIds: string[];
  part: { unitId: string; partId: string; title: string } | null;
  /** Retests owed that have not passed. */
  owed: { id: string; title: string; minutes: number; stepId: string | null }[];
  measures: { id: string; text: string; sinceMs: number }[];
  ownerId: string | null;
  owner: string | null;
  wantedBy: string | null;
  waitingFor: string | null;
  /** Keys of the failures it is to close. */
  covers: string[];
  asked: boolean;
  released: boolean;
  /** What the part has to match, and what of it nobody knows yet; only while one is wanted. */
  wants: { title: string; value: string | number | null }[];
  offered: PartData | null;
  /** What it is there to learn from, once it is released. */
  learns: JobLesson | null;
  openedMs: number;
  /** The rule set in which its failures were found; null where that is not known. */
  ruleSetId?: string | null;
}

/** What a job taught, once its vehicle was released. */
export interface JobLesson {
  releasedMs: number;
  /** Parts that were worked on, in order; all but the last were changed needlessly where the conclusion was wrong. */
  worked: {
    unitId: string;
    partId: string;
    title: string;
    repair: string;
    needless: boolean;
  }[];
  /** The part that was named first by the suspects, and whether it was the one. */
  suspect: { partId: string; chance: number; right: boolean } | null;
  readings: {
    title: string;
    unit: string;
    before: number | null;
    after: number | null;
    expected: number | null;
  }[];
  faultId: string | null;
}

/** What a job comes to, for lists. */
export function boardOf(header: JobHeader, state: JobState): JobBoard {
  const { made } = header;
  const at = state.proven?.at ?? state.chosen?.at ?? state.fitted.at(-1)?.at ?? null;
  const unit = at && made.units.find(({ id }) => id === at.unitId);
  const title = (unit && at && partTitle(unit, at.partId)) ?? null;
  const isOver = state.closed !== null;
  const open = state.measures.filter(({ undone }) => undone === null);
  const left = state.owed.filter(({ passed }) => !passed);
  return {
    station: state.station,
    line: lineOf(state, title),
    holds: isOver ? [] : holdsOf(state),
    unitIds: unitsOf(header, state),
    part: at && title !== null ? { ...at, title } : null,
    owed: isOver
      ? []
      : left.map(({ id, title: owed, minutes, stepId }) => ({ id, title: owed, minutes, stepId })),
    measures: open.map(({ measure }) => ({
      id: measure.id,
      text: `${measureWords[measure.measure].title}: ${measure.text}`,
      sinceMs: measure.atMs,
    })),
    ownerId: state.owner?.personId ?? null,
    owner: state.owner?.name ?? null,
    wantedBy: state.wantedBy,
    waitingFor: state.waiting?.text ?? null,
    covers: made.failures.map(({ key }) => key),
    asked: state.asked !== null,
    released: state.released !== null,
    wants:
      !isOver && unit && at && (state.station === 'proven' || state.station === 'part')
        ? wantsOf(unit, at.partId).map(({ title: want, value }) => ({
            title: want,
            value: value as string | number | null,
          }))
        : [],
    offered: state.chosen?.offered ?? null,
    learns: lessonOf(header, state),
    openedMs: header.startedAtMs,
    ruleSetId: made.ruleSetId ?? null,
  };
}

/** Once it is known where the fault is, it holds that unit; until then every unit it was found on. */
function unitsOf({ made }: JobHeader, { proven, fitted, measures }: JobState): string[] {
  const known = proven ? [proven.at.unitId] : made.foundOn;
  const touched = [
    ...fitted.map(({ at }) => at.unitId),
    ...measures.flatMap(({ measure }) => (measure.at ? [measure.at.unitId] : [])),
  ];
  return [...new Set([...known, ...touched])];
}

/** Why a job holds its units: what it is to close, what was fitted and not proven, and what was done for a while. */
export function holdsOf(state: JobState): string[] {
  const { made } = state.header;
  const left = state.owed.filter(({ passed, holds }) => !passed && holds);
  const isHeld = state.fitted.some(({ at, repair }) =>
    holdsUntilRetested({ units: made.units, at, repair }),
  );
  const critical = made.failures.flatMap(({ critical: is, title }) => (is ? [title] : []));
  return [
    ...state.measures
      .filter(({ undone }) => undone === null)
      .map(({ measure }) => `${measureWords[measure.measure].title}, not undone: ${measure.text}`),
    ...(state.overtaken
      ? ['Released, and then something came in that the release did not know']
      : []),
    ...(left.length > 0
      ? [`Retest owed: ${firstOf(left.map(({ title }) => title))}`]
      : isHeld && state.station === 'release'
        ? ['Retest passed: waits for a lead to release it']
        : critical.length > 0
          ? [`Out of service: ${critical.join(', ')}`]
          : []),
  ];
}

function lineOf(state: JobState, part: string | null): string {
  const { made } = state.header;
  const { proven, chosen, fitted, refused, station } = state;
  if (state.released) return `${part ?? made.found}: released`;
  if (state.given) return `Closed without repair: ${state.given.because}`;
  switch (station) {
    case 'found':
      return state.reopened ? `Reopened: ${state.reopened.because}` : made.found;
    case 'proven': {
      const last = refused.at(-1);
      if (last?.at.partId === proven?.at.partId && last)
        return `${part ?? ''}: offered and refused: ${last.problems[0] ?? ''}`;
      return proven ? `${part ?? ''}: ${proven.text}` : made.found;
    }
    case 'part':
      if (state.waiting) return `${part ?? ''}: waits for ${state.waiting.text}`;
      return `${part ?? ''}: to be ${chosen ? repairWords[chosen.repair] : 'mended'}`;
    default: {
      const last = fitted.at(-1);
      const done = `${part ?? ''} ${last ? repairWords[last.repair] : ''}`.trim();
      return station === 'release' ? `${done}${readingsOf(state)}` : done;
    }
  }
}

/** The reading that changed most, before and after, such as `, 3.9 → 0.4 psi/min`. */
function readingsOf(state: JobState): string {
  const all = state.owed.flatMap(({ done }) => done?.readings ?? []);
  const told = all
    .filter(({ before, after }) => before !== null && after !== null)
    .sort((a, b) => change(b) - change(a))[0];
  if (!told || change(told) < TOLD_FROM) return ', retest passed';
  const sayIn = state.header.made.units[0]?.gauge.unit ?? 'psi';
  const say = (value: number | null) => sayReading(value ?? 0, told.unit, sayIn);
  return `, ${told.title.toLowerCase()} ${say(told.before)} → ${say(told.after)}`;
}

/** A reading that moved by less than this share is no story. */
const TOLD_FROM = 0.1;
const change = ({ before, after }: { before: number | null; after: number | null }) =>
  Math.abs((before ?? 0) - (after ?? 0)) / Math.max(1, Math.abs(before ?? 0));

function lessonOf({ made }: JobHeader, state: JobState): JobLesson | null {
  if (!state.released) return null;
  const final = state.proven?.at ?? null;
  const isFinal = (at: { unitId: string; partId: string }) =>
    final !== null && at.unitId === final.unitId && at.partId === final.partId;
  const { suspected } = made;
  return {
    releasedMs: state.released.atServerMs,
    worked: state.fitted.map(({ at, repair }) => ({
      ...at,
      title: titleOf(
        made.units.find(({ id }) => id === at.unitId),
        at.partId,
      ),
      repair: repairWords[repair],
      needless: repair === 'replaced' && !isFinal(at),
    })),
    suspect: suspected
      ? { partId: suspected.partId, chance: suspected.chance, right: isFinal(suspected) }
      : null,
    readings: state.owed.flatMap(({ done }) => done?.readings ?? []),
    faultId: state.proven?.faultId ?? null,
  };
}

const titleOf = (unit: Unit | undefined, partId: string): string =>
  (unit && partTitle(unit, partId)) ?? partId;

/** Titles in one line of a list; of many the first two, and how many more there are. */
function firstOf(titles: readonly string[]): string {
  const shown = titles.length > 3 ? titles.slice(0, 2) : titles;
  const rest = titles.length - shown.length;
  return `${shown.join('; ')}${rest > 0 ? ` and ${rest} more` : ''}`;
}
