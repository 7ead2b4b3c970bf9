import type { Figure, FigureId, LimitUsed } from '@keen-bleed/contract';
import { meaningOf } from './meaningOf';
import { quantile } from '../statistics/quantile';
import { limitFor } from '../standards/limitFor';
import { headedBy } from '../standards/switches';
import { sayLimit, sayValue } from './figureWords';
import { judge, judgeBy, SURE, SURE_OF_PRESSURE, type Judgement } from './judge';
import type { StepMarks } from './figureContext';

/** What is known of a figure before it is held against its limit. */
export interface Reckoned {
  value: number;
  standardUncertainty: number;
  /** The number as an inspector reads it, where it is another. */
  read?: number;
  /** 95 % upper bound, where the marks give no more than that. */
  atMost?: number;
  /** How sure its verdict must be, where that is not what its unit asks for. */
  sure?: number;
  /** Chance of a value at most this; a normal one from the uncertainty unless it is given. */
  chanceAtMost?: (value: number) => number;
}

/** What would settle a figure that cannot be told; and whether dial or stroke alone leave it open. */
export interface Settles {
  say: string;
  openBy?: 'dial' | 'stroke';
}

/** A figure held against the limit that applies to it, both ways, with one sentence of why. */
export function judged(
  id: FigureId,
  unit: Figure['unit'],
  reckoned: Reckoned,
  found: StepMarks,
  settle: (limit: LimitUsed) => Settles,
  limit: LimitUsed | null = limitFor(id, found, found.ruleSet),
): Figure {
  const { value, standardUncertainty, read, atMost } = reckoned;
  const say = (number: number) => sayValue(number, unit, found.sayIn);
  const number = atMost === undefined ? say(value) : `under ${say(atMost)}`;
  const base = {
    id,
    stepId: found.step.id,
    value,
    read: read ?? null,
    atMost: atMost ?? null,
    unit,
    standardUncertainty,
    ...interval(reckoned),
    limit,
  };
  if (!limit) {
    return {
      ...base,
      asRead: null,
      verdict: null,
      within: null,
      why: `${number}. No limit is set for it.`,
      settle: null,
      means: null,
    };
  }
  const { asRead, verdict, within } = judgement(
    reckoned,
    limit,
    reckoned.sure ?? (unit === 'psi' ? SURE_OF_PRESSURE : SURE),
  );
  const allowed = sayLimit(limit, unit, found.sayIn);
  const { undecided } = limit;
  const isDecided =
    !undecided || asRead === 'fail' || judgement(reckoned, undecided, SURE).asRead === 'pass';
  if (!isDecided) {
    return {
      ...base,
      asRead: null,
      verdict: 'cant-tell',
      heads: headedBy(found.ruleSet),
      within,
      why: `${number} is within ${allowed}, and outside ${sayLimit(undecided, unit, found.sayIn)}: ${
        undecided.month === null
          ? 'the governor’s plate decides.'
          : `whether it was built before ${undecided.month} decides.`
      }`,
      settle:
        undecided.month === null
          ? 'Enter the governor’s plate.'
          : 'Enter the year and month it was built.',
      means: null,
    };
  }
  const settles = verdict === 'cant-tell' ? settle(limit) : null;
  const doubt = say(standardUncertainty * 2);
  // Headed as read, the sentence is of the needle; the doubt stands in the line beside it.
  const isAsRead = headedBy(found.ruleSet) === 'as-read';
  const inWords = isAsRead && atMost === undefined ? say(read ?? value) : number;
  const why = {
    pass: `${inWords}; ${allowed} is allowed.`,
    fail: `${inWords} is outside what is allowed: ${allowed}.`,
    'cant-tell':
      atMost === undefined
        ? `${number} may be ${doubt} off, and the limit is ${allowed}.`
        : `No line was crossed: ${number} is all that says, and the limit is ${allowed}.`,
  }[isAsRead ? asRead : verdict];
  return {
    ...base,
    asRead,
    verdict,
    heads: headedBy(found.ruleSet),
    within,
    why,
    settle: settles?.say ?? null,
    ...(settles?.openBy ? { openBy: settles.openBy } : {}),
    means:
      verdict === 'fail'
        ? meaningOf(id, value, limit)
        : asRead === 'fail'
          ? meaningOf(id, read ?? value, limit)
          : null,
  };
}

const TAIL = 0.025;

/** The 95 % interval, from the shape of the doubt. */
function interval({
  value,
  standardUncertainty,
  chanceAtMost,
}: Reckoned): Pick<Figure, 'low' | 'high'> {
  if (!chanceAtMost) {
    const half = 1.96 * standardUncertainty;
    return { low: value - half, high: value + half };
  }
  const reach = 6 * standardUncertainty + 1e-6;
  const at = (share: number) => quantile(chanceAtMost, share, value - reach, value + reach);
  return { low: at(TAIL), high: at(1 - TAIL) };
}

function judgement(
  { value, standardUncertainty, read, chanceAtMost }: Reckoned,
  limit: { min: number | null; max: number | null },
  sure: number,
): Judgement {
  if (!chanceAtMost) {
    const judgement = judge(value, standardUncertainty, limit, sure);
    return read === undefined ? judgement : judgeBy(read, judgement.within, limit, sure);
  }
  const above = limit.max === null ? 1 : chanceAtMost(limit.max);
  const below = limit.min === null ? 0 : chanceAtMost(limit.min);
  return judgeBy(read ?? value, Math.max(0, above - below), limit, sure);
}

/** A figure that cannot be had from the marks as they are. */
export function unreadable(
  id: FigureId,
  unit: Figure['unit'],
  found: StepMarks,
  why: string,
  settle: string,
): Figure {
  return {
    id,
    stepId: found.step.id,
    value: null,
    read: null,
    atMost: null,
    unit,
    standardUncertainty: null,
    limit: limitFor(id, found, found.ruleSet),
    asRead: null,
    verdict: 'cant-tell',
    heads: headedBy(found.ruleSet),
    within: null,
    why,
    settle,
    means: null,
  };
}

/** A figure that is kept and not judged. */
export const forTheRecord = (
  id: FigureId,
  unit: Figure['unit'],
  value: number,
  standardUncertainty: number,
  found: StepMarks,
  why: string,
): Figure => ({
  id,
  stepId: found.step.id,
  value,
  read: null,
  atMost: null,
  unit,
  standardUncertainty,
  limit: null,
  asRead: null,
  verdict: null,
  within: null,
  why,
  settle: null,
  means: null,
});

/** The verdict that heads a record for one figure: as read or how sure, by its rule set. */
export function headVerdict({
  asRead,
  verdict,
  heads,
}: Pick<Figure, 'asRead' | 'verdict' | 'heads'>): Figure['verdict'] {
  return heads === 'as-read' && asRead !== null ? asRead : verdict;
}
