import type { VisitFact, VisitHeader } from '@keen-bleed/contract';
import { rigTitle } from '../../../rig/rigTitle';
import { standing } from '../../../facts/standing';
import type { LogFold, LogKind, LogState, LogSummary } from '../../logKind';
import { inOrder } from '../../../facts/factOrder';
import { partTitle } from '../../../rig/partList';
import type {
  AsideFact,
  CheckFact,
  ComplaintFact,
  NeedleHeldFact,
  MendedFact,
  NamedFact,
  RankedFact,
  FieldProblem,
  LineFact,
  PartFact,
  SeenFact,
  VisitNoteFact,
  WeatherFact,
} from '@keen-bleed/contract';

export const VISIT_VERSION = 1;

/** What was noted, seen, found by a check, said by a driver, or named as the fault; and how suspects stood. */
export type VisitEntry =
  | VisitNoteFact
  | SeenFact
  | CheckFact
  | ComplaintFact
  | NamedFact
  | RankedFact
  | MendedFact
  | NeedleHeldFact
  | AsideFact
  | WeatherFact;

const ENTRIES: ReadonlySet<VisitFact['kind']> = new Set([
  'note',
  'seen',
  'check',
  'complaint',
  'named',
  'ranked',
  'mended',
  'held',
  'aside',
  'weather',
] as const);
const isEntry = (fact: VisitFact): fact is VisitEntry => ENTRIES.has(fact.kind);

/** Photos of an entry, by id. */
export const photosOf = (entry: VisitEntry): readonly string[] =>
  ('photos' in entry ? entry.photos : undefined) ?? [];

/** The part an entry is of; null where it is of the whole. */
export const partOfEntry = (entry: VisitEntry): { unitId: string; partId: string } | null =>
  'at' in entry ? entry.at : null;

/** Where a visit stands: what was noted and seen, in order, as it stands after every correction. */
export interface VisitState extends LogState {
  header: VisitHeader;
  entries: readonly VisitEntry[];
  /** How parts were found, the last that was said of each. */
  parts: readonly PartFact[];
  /** How lines were found, the last that was said of each. */
  lines: readonly LineFact[];
  /** Everything that may be taken back or corrected. */
  known: ReadonlyMap<string, VisitFact>;
}

class VisitFold implements LogFold<VisitFact, VisitState> {
  private facts: VisitFact[];
  private cached: VisitState | null = null;

  constructor(
    private readonly header: VisitHeader,
    facts: readonly VisitFact[],
  ) {
    this.facts = [...facts];
  }

  add(fact: VisitFact): void {
    this.facts = inOrder([...this.facts, fact]);
    this.cached = null;
  }

  get state(): VisitState {
    if (this.cached) return this.cached;
    const live = standing(this.facts);
    const close = live.find((fact) => fact.kind === 'close');
    this.cached = {
      header: this.header,
      entries: live.filter(isEntry),
      parts: lastOfEach(
        live.flatMap((fact) => (fact.kind === 'part' ? [fact] : [])),
        ({ at }) => `${at.unitId} ${at.partId}`,
      ),
      lines: lastOfEach(
        live.flatMap((fact) => (fact.kind === 'line' ? [fact] : [])),
        ({ at }) => `${at.unitId} ${at.lineId}`,
      ),
      known: new Map(this.facts.map((fact) => [fact.id, fact])),
      closed: close ? { atMs: close.atMs } : null,
    };
    return this.cached;
  }
}

/** The last that was said of each. */
const lastOfEach = <F>(found: readonly F[], key: (fact: F) => string): F[] => [
  ...new Map(found.map((fact) => [key(fact), fact])).values(),
];

/**
 * A visit: an open log on a unit or rig in which everybody of the shop puts notes and what they saw at a part, as long
 * as the work lasts. What was written on a phone that had not heard of its closing is still taken.
 */
export const visitKind: LogKind<VisitHeader, VisitFact, VisitState> = {
  name: 'visit',
  version: VISIT_VERSION,
  writers: 'shop',
  takesLate: () => true,
  fold: (header, facts) => new VisitFold(header, facts),
  admit,
  summary,
  result: () => null,
  upcast: {},
};

function admit({ header, known, lines }: VisitState, fact: VisitFact): FieldProblem | null {
  const target = fact.kind === 'retract' ? known.get(fact.target)?.kind : undefined;
  if (target === 'part' || target === 'line') {
    return {
      field: 'target',
      message: `Say how the ${target} is instead: that replaces what was said.`,
    };
  }
  if (fact.kind === 'line') return admitLine(header, lines, fact);
  if (!isEntry(fact) && fact.kind !== 'part') return null;
  if ('unitId' in fact && !header.made.units.some(({ id }) => id === fact.unitId)) {
    return { field: 'unitId', message: 'That unit is not part of this visit.' };
  }
  const at = fact.kind === 'part' ? fact.at : partOfEntry(fact);
  if (at) {
    const { unitId, partId } = at;
    const unit = header.made.units.find((each) => each.id === unitId);
    if (!unit) return { field: 'at.unitId', message: 'That unit is not part of this visit.' };
    if (partTitle(unit, partId) === null) {
      return { field: 'at.partId', message: `This unit has no part "${partId}".` };
    }
    const beside = fact.kind === 'check' ? (fact.water?.with ?? []) : [];
    const unknown = beside.find((each) => partTitle(unit, each) === null);
    if (unknown !== undefined) {
      return { field: 'water.with', message: `This unit has no part "${unknown}".` };
    }
  }
  if (
    fact.kind === 'part' ||
    fact.kind === 'ranked' ||
    fact.supersedes === undefined ||
    known.get(fact.supersedes)?.kind === fact.kind
  )
    return null;
  return { field: 'supersedes', message: 'The entry to correct is not there.' };
}

/** Lines of one unit that a visit speaks of at most. */
const MOST_LINES = 160;

function admitLine(
  { made }: VisitHeader,
  lines: readonly LineFact[],
  { at }: LineFact,
): FieldProblem | null {
  if (!made.units.some(({ id }) => id === at.unitId)) {
    return { field: 'at.unitId', message: 'That unit is not part of this visit.' };
  }
  const others = lines.filter(
    (line) => line.at.unitId === at.unitId && line.at.lineId !== at.lineId,
  );
  return others.length < MOST_LINES
    ? null
    : {
        field: 'at.lineId',
        message: `A visit takes up to ${MOST_LINES} lines of a unit. Start another visit for more.`,
      };
}

/** A check of the catalogue that opens a tank's drain. */
const DRAIN = /^\d+\/drain\//;

function summary({ made }: VisitHeader, { entries }: VisitState): LogSummary {
  const bad = entries.flatMap((entry) =>
    entry.kind === 'seen' && entry.standing === 'bad' ? [entry] : [],
  );
  const newest = entries.at(-1);
  const [unit, ...towed] = made.units;
  return {
    // What was seen is not judged here: a later check or a repair hangs on it.
    verdict: null,
    headline:
      bad.length > 0
        ? `${bad.length === 1 ? '1 thing is' : `${bad.length} things are`} not right: ${bad.at(-1)?.text ?? ''}`
        : ((newest?.kind === 'check' ? `${newest.title}: ${newest.said}` : newest?.text) ??
          made.reason ??
          (unit ? `Nothing noted yet on ${rigTitle({ unit, towed })}` : '')),
    owes: [],
    decisive: null,
    figures: [],
    trend: null,
    drained: entries.some((entry) => entry.kind === 'check' && DRAIN.test(entry.checkId)),
  };
}
