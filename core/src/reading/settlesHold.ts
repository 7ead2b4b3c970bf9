import type { GaugeRole } from '@keen-bleed/contract';
import { isTrueGauge, readingUncertaintyPsi, slopeShare } from '../gauge/uncertainty';
import { USUAL_HEAT_S, type Heat } from '../leak/heat';
import type { LeakEstimate } from '../leak/leakEstimate';
import { normalCdf } from '../statistics/normal';
import type { Settles } from './figureParts';
import { SURE_COVERAGE } from './judge';

/** How a hold was made that could not be told. */
interface Held {
  resolutionPsi: number;
  gauge: GaugeRole;
  /** What heat was still to do at its start. */
  heat: Heat;
  limitPsiPerMin: number;
}

/** A further hold that might settle it. */
interface Further {
  gauge: GaugeRole;
  minutes: number;
  resolutionPsi: number;
}

/** What is asked for must settle it this often, by what is known. House value. */
const OFTEN_ENOUGH = 0.95;
/** A master gauge is read this much finer than a dash gauge. House value. */
const MASTER_FINER = 0.5;
/** Heat that makes up this share of the doubt's square is what is in the way. House value. */
const MOSTLY_HEAT = 0.4;
const MINUTES = [2, 3, 4, 6, 8];
const MASTER_MINUTES = [4, 6, 8, 10, 12, 15, 20];

/** What would settle a leak that cannot be told from its limit, the shortest first. */
export function settlesHold(estimate: LeakEstimate, held: Held): Settles {
  const { spanS, standardUncertaintyPsiPerMin: doubt } = estimate;
  const heatDoubt =
    (held.heat(USUAL_HEAT_S).sdPsi * (1 - Math.exp(-spanS / USUAL_HEAT_S)) * 60) / spanS;
  const isHot = heatDoubt ** 2 > MOSTLY_HEAT * doubt ** 2;
  const wait = isHot ? 'Let the air stand first. ' : '';
  const soFar = isHot ? 0 : spanS / 60;
  const dash = MINUTES.filter((minutes) => minutes > soFar + 0.5 || estimate.onlyBounded).map(
    (minutes): Further => ({ gauge: held.gauge, minutes, resolutionPsi: held.resolutionPsi }),
  );
  const found = dash.find((each) => settlesOften(each, estimate, held));
  if (found) {
    const { minutes } = found;
    return {
      say:
        minutes > soFar && !isHot
          ? `Hold ${minutes} min in all, and read the needle at the end.`
          : `${wait}Hold ${minutes} min again, and read the needle at the end.`,
    };
  }
  if (isTrueGauge(held.gauge)) {
    return {
      say: 'This close to the limit a longer hold will not tell: find the leak, and mend it.',
    };
  }
  const master = MASTER_MINUTES.map((minutes): Further => ({
    gauge: 'master',
    minutes,
    resolutionPsi: MASTER_FINER * held.resolutionPsi,
  }));
  const { minutes } =
    master.find((each) => settlesOften(each, estimate, held)) ?? master[master.length - 1]!;
  return { say: `${wait}Hold ${minutes} min on a master gauge with finer lines.` };
}

/** How often a further hold would come out on one side of the limit: true rate and its reading scatter about what is known. */
function settlesOften(
  { gauge, minutes, resolutionPsi }: Further,
  { ratePsiPerMin, standardUncertaintyPsiPerMin }: LeakEstimate,
  { limitPsiPerMin }: Held,
): boolean {
  const further = Math.hypot(
    (Math.SQRT2 * readingUncertaintyPsi(resolutionPsi)) / minutes,
    slopeShare(gauge) * limitPsiPerMin,
  );
  const scatter = Math.hypot(standardUncertaintyPsiPerMin, further);
  const open = SURE_COVERAGE * further;
  const gap = limitPsiPerMin - ratePsiPerMin;
  const undecided = normalCdf((gap + open) / scatter) - normalCdf((gap - open) / scatter);
  return 1 - undecided >= OFTEN_ENOUGH;
}
