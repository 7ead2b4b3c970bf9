import type {
  FigureId,
  Limit,
  LimitUsed,
  MakerLimits,
  RuleSet,
  UnitDraft,
} from '@keen-bleed/contract';
import { couplingOf, type RigUnderTest } from '../rig/rigUnderTest';
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
  unit: Pick<UnitDraft, 'kind' | 'circuits' | 'makerLimits'>;
  towed: RigUnderTest['towed'];
}

/**
 * The limit that applies to one figure of one rig. A figure the vehicle's maker gives stands before the rule
 * set's, bound by bound; but a maker speaks of the vehicle alone, so its leak limits fall silent once
 * something is coupled.
 *
 * @returns the limit with its source, or null where none applies
 */
export function limitFor(figure: FigureId, rig: LimitedRig, ruleSet: RuleSet): LimitUsed | null {
  const asked = sameAs[figure] ?? figure;
  const coupling = couplingOf(rig);
  const { unit } = rig;
  const found = ruleSet.limits.find(
    (limit) =>
      limit.figure === asked &&
      limit.kinds.includes(unit.kind) &&
      limit.circuits.includes(unit.circuits) &&
      limit.coupled.includes(coupling),
  );
  const rule = found && withSwitches(found, ruleSet);
  const speaksOfUnitAlone = asked === 'static-leak' || asked === 'applied-leak';
  const maker =
    speaksOfUnitAlone && coupling !== 'alone' ? none : makerBounds(asked, unit.makerLimits);
  if (maker.min === undefined && maker.max === undefined) {
    return rule
      ? { id: rule.id, min: rule.min, max: rule.max, source: rule.source, tag: rule.tag }
      : null;
  }
  const min = maker.min ?? rule?.min ?? null;
  const max = maker.max ?? rule?.max ?? null;
  const ruleStillCounts =
    rule !== undefined &&
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
