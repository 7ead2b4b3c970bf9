import type { VisitFact, VisitHeader } from '@keen-bleed/contract';
import { rigTitle } from '../../../rig/rigTitle';
import { standing } from '../../../facts/standing';
import type { LogKind, LogState, LogSummary } from '../../logKind';
import { SharedFold } from '../../sharedFold';
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

/** A visit's facts, with the lines that each unit's were said of. */
class VisitFold extends SharedFold<VisitHeader, VisitFact, VisitState> {
  private readonly linesOf = new Map<string, Set<string>>();

  constructor(header: VisitHeader, facts: readonly VisitFact[]) {
    super(header, [], stateOfVisit);
    for (const fact of facts) this.add(fact);
  }

  override add(fact: VisitFact): void {
    super.add(fact);
    if (fact.kind !== 'line') return;
    const { unitId, lineId } = fact.at;
    this.linesOf.set(unitId, (this.linesOf.get(unitId) ?? new Set<string>()).add(lineId));
  }

  /** How many lines of a unit were spoken of beside one. */
  linesBeside({ unitId, lineId }: LineFact['at']): number {
    const lines = this.linesOf.get(unitId);
    return (lines?.size ?? 0) - (lines?.has(lineId) ? 1 : 0);
  }
}

function stateOfVisit(header: VisitHeader, facts: readonly VisitFact[]): VisitState {
  const live = standing(facts);
  const close = live.find((fact) => fact.kind === 'close');
  return {
    header,
    entries: live.filter(isEntry),
    parts: lastOfEach(
      live.flatMap((fact) => (fact.kind === 'part' ? [fact] : [])),
      ({ at }) => `${at.unitId} ${at.partId}`,
    ),
    lines: lastOfEach(
      live.flatMap((fact) => (fact.kind === 'line' ? [fact] : [])),
      ({ at }) => `${at.unitId} ${at.lineId}`,
    ),
    known: new Map(facts.map((fact) => [fact.id, fact])),
    closed: close ? { atMs: close.atMs } : null,
  };
}

/** The last that was said of each. */
const lastOfEach = <F>(found: readonly F[], key: (fact: F) => string): F[] => [
  ...new Map(found.map((fact) => [key(fact), fact])).values(),
];

/**
 * A visit: an open log on a unit or rig in which everybody of the shop puts notes and what they saw at a part, as long
 * as the work lasts. What was written on a phone that had not heard of its closing is still taken.
 */
export const visitKind: LogKind<VisitHeader, VisitFact, VisitState, VisitFold> = {
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

function admit(fold: VisitFold, fact: VisitFact): FieldProblem | null {
  const { header } = fold;
  const target = fact.kind === 'retract' ? fold.factOf(fact.target)?.kind : undefined;
  if (target === 'part' || target === 'line') {
    return {
      field: 'target',
      message: `Say how the ${target} is instead: that replaces what was said.`,
    };
  }
  if (fact.kind === 'line') return admitLine(fold, fact);
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
    fold.factOf(fact.supersedes)?.kind === fact.kind
  )
    return null;
  return { field: 'supersedes', message: 'The entry to correct is not there.' };
}

/** Lines of one unit that a visit speaks of at most. */
const MOST_LINES = 160;

function admitLine(fold: VisitFold, { at }: LineFact): FieldProblem | null {
  if (!fold.header.made.units.some(({ id }) => id === at.unitId)) {
    return { field: 'at.unitId', message: 'That unit is not part of this visit.' };
  }
  return fold.linesBeside(at) < MOST_LINES
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
