import type {
  FigureId,
  Limit,
  LimitUsed,
  MakerLimits,
  RuleSet,
  UnitDraft,
} from '@keen-bleed/contract';
import { builtWhen } from '../rig/built';
import { reservoirCheck } from '../rig/reservoirRule';
import { couplingOf, type RigUnderTest } from '../rig/rigUnderTest';
import { CUT_IN_BEFORE_PSI } from './limits';
import { popOutCeilingPsi } from './switches';

interface MakerBounds {
  min: number | undefined;
  max: number | undefined;
}

const none: MakerBounds = { min: undefined, max: undefined };

function makerBounds(figure: FigureId, maker: MakerLimits): MakerBounds {
  switch (figure) {
    case 'build-up-time':
      return { ...none, max: maker.buildUpMaxS };
    case 'cut-out':
      return { min: maker.cutOutMinPsi, max: maker.cutOutMaxPsi };
    case 'cut-in':
      return { ...none, min: maker.cutInMinPsi };
    case 'static-leak':
      return { ...none, max: maker.staticLeakMaxPsiPerMin };
    case 'applied-leak':
      return { ...none, max: maker.appliedLeakMaxPsiPerMin };
    case 'warning':
      return { ...none, min: maker.warningMinPsi };
    default:
      return none;
  }
}

/** The other gauge of a hold is held to the same limit as the first. */
const sameAs: Partial<Record<FigureId, FigureId>> = {
  'static-leak-other': 'static-leak',
  'applied-leak-other': 'applied-leak',
};

/** A rig as far as limits ask after it. */
export interface LimitedRig {
  unit: Pick<UnitDraft, 'kind' | 'circuits' | 'makerLimits'> & Partial<UnitDraft>;
  towed: RigUnderTest['towed'];
}

/**
 * The limit that applies to one figure of one rig. A figure the vehicle's maker gives stands before the rule
 * set's, bound by bound; but a maker speaks of the vehicle alone, so its leak limits fall silent once
 * something is coupled. Where the unit's date or plate decides between two limits and is not known, the looser one
 * applies and the stricter is named beside it: an uncertain date fails no vehicle.
 *
 * @returns the limit with its source, or null where none applies
 */
export function limitFor(figure: FigureId, rig: LimitedRig, ruleSet: RuleSet): LimitUsed | null {
  const asked = sameAs[figure] ?? figure;
  const coupling = couplingOf(rig);
  const { unit } = rig;
  const found = ruleSet.limits.filter(
    (limit) =>
      limit.figure === asked &&
      limit.kinds.includes(unit.kind) &&
      limit.circuits.includes(unit.circuits) &&
      limit.coupled.includes(coupling) &&
      isOfWeight(limit, rig) &&
      mayBeOfAge(limit, unit),
  );
  const rule = decided(
    found.map((each) => usedOf(withSwitches(each, ruleSet), unit)),
    found[0]?.builtFrom ?? found[0]?.builtBefore ?? null,
  );
  const speaksOfUnitAlone = asked === 'static-leak' || asked === 'applied-leak';
  const maker =
    speaksOfUnitAlone && coupling !== 'alone' ? none : makerBounds(asked, unit.makerLimits);
  if (maker.min === undefined && maker.max === undefined) return rule;
  const min = maker.min ?? rule?.min ?? null;
  const max = maker.max ?? rule?.max ?? null;
  const ruleStillCounts =
    rule !== null &&
    ((maker.min === undefined && rule.min !== null) ||
      (maker.max === undefined && rule.max !== null));
  return {
    id: `maker-${asked}`,
    min,
    max,
    source: ruleStillCounts ? `the maker's figure; otherwise ${rule.source}` : "the maker's figure",
    tag: 'maker',
  };
}

/** At most so much is light, lb [std: 49 CFR 393.52(d), value from memory]. */
const LIGHT_LB = 10_000;

/** A weight that nobody entered is over 10,000 lb: air brakes are of heavy vehicles [trade]. */
function isOfWeight({ weight }: Limit, { unit, towed }: LimitedRig): boolean {
  if (weight === undefined) return true;
  const isLight =
    towed.length === 0 && unit.kind !== 'bus' && (unit.grossLb ?? Infinity) <= LIGHT_LB;
  return isLight === (weight === 'to-10000-lb');
}

/** Whether a limit may be of a unit by when that was built; both sides where it is undecided. */
function mayBeOfAge({ builtFrom, builtBefore }: Limit, { buildYear, ...unit }: LimitedRig['unit']) {
  const when = (month: string) =>
    buildYear === undefined ? 'undecided' : builtWhen({ buildYear, ...unit }, month);
  if (builtFrom !== undefined && when(builtFrom) === 'before') return false;
  return builtBefore === undefined || when(builtBefore) !== 'from';
}

/** The looser of two limits that may apply, with the stricter beside it. */
function decided(found: readonly LimitUsed[], month: string | null): LimitUsed | null {
  const [first, second] = found;
  if (!first || !second) return first ?? null;
  const isLooser =
    (second.min ?? -Infinity) <= (first.min ?? -Infinity) &&
    (second.max ?? Infinity) >= (first.max ?? Infinity);
  const [loose, strict] = isLooser ? [second, first] : [first, second];
  if (loose.min === strict.min && loose.max === strict.max) return strict;
  return { ...loose, undecided: { min: strict.min, max: strict.max, month } };
}

/**
 * How far a governor may be from its plate, psi, house values: an older set by what a dash may be off by, 7 % of 100
 * [571.121 S5.1.4]; one within the examiner’s window may fall short of it by less.
 */
const PLATE_PSI = { older: 7, within: 5 };

/** A rule’s limit as it applies to one unit: moved by its plate, its tanks or its cut-out where it follows one. */
function usedOf(limit: Limit, unit: LimitedRig['unit']): LimitUsed {
  const { id, min, max, source, tag, follows } = limit;
  const plain: LimitUsed = { id, min, max, source, tag };
  const plate = unit.governor ?? null;
  if (follows === 'reservoirs')
    return { ...plain, max: max === null ? null : max * tanksOver(unit) };
  if (follows === 'half-cut-out') {
    return {
      ...plain,
      min: min === null || !plate ? min : Math.min(min, plate.cutOutPsi / 2),
    };
  }
  if (follows !== 'plate' || min === null) return plain;
  return limit.figure === 'cut-in' ? cutInBy(plain, min, plate) : cutOutBy(plain, min, plate);
}

type Plate = UnitDraft['governor'];

/** Of trucks: 100 psi where the plate says so, 85 where it says less, and undecided where there is none. */
function cutInBy(plain: LimitUsed, min: number, plate: Plate): LimitUsed {
  const before = { ...plain, id: `${plain.id}-before`, min: Math.min(min, CUT_IN_BEFORE_PSI) };
  if (!plate) return { ...before, undecided: { min, max: plain.max, month: null } };
  return plate.cutInPsi >= min
    ? plain
    : { ...before, source: `${plain.source}; ${CUT_IN_BEFORE_PSI} psi on older trucks, as plated` };
}

/** An examiner’s window is of a governor plated for it; an older set is held to its plate. */
function cutOutBy(plain: LimitUsed, min: number, plate: Plate): LimitUsed {
  if (!plate) return plain;
  const isOlder = plate.cutOutPsi < min;
  const by = isOlder ? PLATE_PSI.older : PLATE_PSI.within;
  const least = plate.cutOutPsi - by;
  if (least >= min) return plain;
  return {
    ...plain,
    id: `${plain.id}-plate`,
    min: least,
    max: isOlder ? plate.cutOutPsi + by : plain.max,
    source: `the governor’s plate, ± ${by} psi; otherwise ${plain.source}`,
  };
}

/** Times the required volume that the tanks hold, at least once; once where it cannot be told. */
function tanksOver({ kind, tanks, chambers }: LimitedRig['unit']): number {
  if (!tanks || !chambers) return 1;
  const { actualIn3, requiredIn3 } = reservoirCheck({ kind, tanks, chambers });
  return requiredIn3 === null ? 1 : Math.max(1, actualIn3 / requiredIn3);
}

/** The pop-out window follows its switch, unless the shop has set figures of its own. */
function withSwitches(limit: Limit, ruleSet: RuleSet): Limit {
  const isPopOut = limit.figure === 'pop-out-park' || limit.figure === 'pop-out-trailer';
  const ceiling = popOutCeilingPsi(ruleSet);
  const isShipped = limit.max === 45;
  if (!isPopOut || !isShipped || ceiling === limit.max) return limit;
  return {
    ...limit,
    id: `${limit.id}-${ceiling}`,
    max: ceiling,
    source: `some examiners want 20 to ${ceiling} psi`,
    tag: 'trade',
  };
}
