import type { PressureUnit } from '@keen-bleed/contract';
import { gradeTitles } from '../checks/grades';
import type { Check } from '../checks/check';
import { equivalentHoleMm } from '../gas/orifice';
import type { Fault } from '../twin/faults/fault';
import { GRADED_AT_PSI, LEAST_SCFM, MOST_SCFM } from '../twin/faults/scales';
import { rounded, sayPressure } from '../units/say';
import { complaints, saysOf } from './complaints';
import type { AnswerEvidence } from './evidence';
import { figureOf, saidOf } from './rigModel';
import { lampFigures, unmeasured, type LampFigure, type NumberFigure } from './runFigures';
import { shownBetween } from './interpolated';
import type { Weighing } from './weigh';

/** What speaks for a suspect and what against it, in sentences; and its needle over the measured one. */
export interface Why {
  pros: readonly string[];
  cons: readonly string[];
  /** Figures of the run: what was read, what a sound rig gives, and what this fault would give. */
  needles: readonly Needle[];
}

export interface Needle {
  title: string;
  read: number;
  /** A sound rig's mean, and 95 in 100 of them. */
  sound: { mean: number; low: number; high: number };
  would: number;
  /** In words, each with its unit. */
  said: { read: string; sound: string; would: string };
}

/** How a figure is spoken of: what was read, before its number. */
const FIGURES: Readonly<
  Record<NumberFigure, readonly [title: string, measure: 's' | 'psi' | 'psi/min']>
> = {
  'build-up': ['Build-up', 's'],
  'cut-out': ['Cut-out', 'psi'],
  'cut-in': ['Cut-in', 'psi'],
  'static primary': ['Primary, brakes released', 'psi/min'],
  'static secondary': ['Secondary, brakes released', 'psi/min'],
  'applied primary': ['Primary, pedal down', 'psi/min'],
  'applied secondary': ['Secondary, pedal down', 'psi/min'],
  warning: ['Low-air warning', 'psi'],
  red: ['Trailer pop-out', 'psi'],
  yellow: ['Park pop-out', 'psi'],
  'supply over primary, loading': ['Supply over primary, loading', 'psi'],
  'supply at cut-out': ['Supply at cut-out', 'psi'],
  'static supply': ['Supply, brakes released', 'psi/min'],
  'applied supply': ['Supply, pedal down', 'psi/min'],
  'service at 9 psi': ['Service line at 9 psi', 'psi'],
  'service after 1 s': ['Service line after 1 s', 'psi'],
  'service full': ['Service line, full pedal', 'psi'],
  'service let go': ['Service line, let go', 'psi'],
};
const LAMPS: Readonly<Record<LampFigure, string>> = {
  'lamp light': 'Stop lamps at a light pedal',
  'lamp full': 'Stop lamps at full pedal',
  'lamp off': 'Stop lamps with the pedal up',
};

export function sayRead(figure: NumberFigure, value: number, unit: PressureUnit): string {
  const [, measure] = FIGURES[figure];
  if (measure === 's') return `${rounded(value, 0)} s`;
  const psi = sayPressure(Math.max(0, value), unit);
  return measure === 'psi' ? psi : `${psi} a minute`;
}

/** So far off, in deviations, something is said of a figure. */
const SPOKEN_OF = 1.5;
const FOR_LEAST = 2;
const MOST_SAID = 4;

/**
 * Why a suspect is one.
 *
 * @param severity how bad it is taken to be
 * @param unit of pressure in the sentences
 */
export function whyOf(weighing: Weighing, fault: Fault, severity: number, unit: PressureUnit): Why {
  const { model, joint } = weighing;
  const pros: { weight: number; text: string }[] = [];
  const cons: { weight: number; text: string }[] = [];
  const needles: Needle[] = [];
  const shown = joint.run ? shownBetween(model, fault, Math.max(0.1, severity)) : null;
  const shift = joint.shiftOf(shown, (check) => weighing.wouldAnswer(check, fault, severity));
  for (const { row, figure, check, seen, mean, deviation, byPast } of joint.numbers()) {
    const off = (seen - mean) / deviation;
    const by = seen - mean;
    const would = (shift[row] ?? 0) / deviation;
    const words = figure
      ? (at: number) => sayRead(figure, unmeasured(figure, at), unit)
      : (at: number) => sayNumber(check!, at, unit);
    const title = figure ? FIGURES[figure][0] : check!.title;
    if (figure) {
      needles.push({
        title,
        read: unmeasured(figure, seen),
        sound: {
          mean: unmeasured(figure, mean),
          low: unmeasured(figure, mean - 2 * deviation),
          high: unmeasured(figure, mean + 2 * deviation),
        },
        would: unmeasured(figure, mean + (shift[row] ?? 0)),
        said: {
          read: words(seen),
          sound: words(mean),
          would: words(mean + (shift[row] ?? 0)),
        },
      });
    }
    const usual = byPast ? 'usual here' : 'a sound rig';
    const numbers = `${title} ${words(seen)}; ${usual} ${words(mean)}, with this ${words(mean + (shift[row] ?? 0))}`;
    const fits = Math.abs(off - would);
    if (
      Math.abs(off) > SPOKEN_OF &&
      Math.abs(would) > 1 &&
      Math.sign(off) === Math.sign(would) &&
      fits < Math.abs(off)
    ) {
      pros.push({ weight: Math.abs(off) - fits, text: numbers });
    } else if (Math.abs(would) > FOR_LEAST && fits > Math.abs(off)) {
      cons.push({ weight: fits, text: numbers });
    } else if (Math.abs(off) > FOR_LEAST && Math.abs(would) < 0.5) {
      cons.push({
        weight: Math.abs(off),
        text: `does not explain ${title.toLowerCase()} ${words(seen)}, ${by > 0 ? 'more' : 'less'} than ${byPast ? 'usual here' : 'a sound rig’s'}${byPast ? ',' : ''} ${words(mean)}`,
      });
    }
  }
  if (joint.run && shown) {
    const usual = model.run(null).lamps;
    for (const lamp of lampFigures) {
      const was = joint.run.figures[lamp];
      const would = shown.lamps[lamp];
      if (was === undefined || would === undefined || usual[lamp] === undefined) continue;
      const isOdd = was !== usual[lamp];
      const explains = Math.abs(would - was) < 0.5;
      const text = `${LAMPS[lamp]} ${was > 0.5 ? 'on' : 'off'}`;
      if (isOdd)
        (explains ? pros : cons).push({
          weight: 5,
          text: explains ? text : `does not explain: ${text.toLowerCase()}`,
        });
      else if (!explains) cons.push({ weight: 5, text });
    }
  }
  for (const each of weighing.evidence) {
    if (each.kind === 'answer' && figureOf(each.answer) === null) {
      addSaid(weighing, fault, severity, each, pros, cons);
    }
    if (each.kind === 'complaint') {
      const complaint = complaints.find(({ id }) => id === each.complaintId);
      if (!complaint) continue;
      const ratio = saysOf(complaint, fault, severity) / saysOf(complaint, null);
      if (ratio >= FOR_LEAST)
        pros.push({ weight: ratio / 4, text: `the driver says: ${complaint.title.toLowerCase()}` });
    }
    if (each.kind === 'named' && each.fault === fault.id) {
      pros.push({ weight: 3, text: 'somebody who knows the rig names it' });
    }
  }
  const said = (some: typeof pros) =>
    some
      .sort((a, b) => b.weight - a.weight)
      .slice(0, MOST_SAID)
      .map(({ text }) => text);
  return { pros: said(pros), cons: said(cons), needles };
}

function addSaid(
  weighing: Weighing,
  fault: Fault,
  severity: number,
  { checkId, answer }: AnswerEvidence,
  pros: { weight: number; text: string }[],
  cons: { weight: number; text: string }[],
): void {
  const check = weighing.model.checkById.get(checkId);
  const said = saidOf(answer);
  if (!check || said === null) return;
  const would = weighing.wouldAnswer(check, fault, severity).chances[said] ?? 0;
  const sound = weighing.wouldAnswer(check, null, 0).chances[said] ?? 0;
  const ratio = Math.max(1e-3, would) / Math.max(1e-3, sound);
  const text = `${check.title}: ${sayOption(check, said)}`;
  if (ratio >= FOR_LEAST) pros.push({ weight: Math.log(ratio), text });
  else if (ratio <= 1 / FOR_LEAST) {
    cons.push({ weight: -Math.log(ratio), text: `${text}, ${sayOften(would)} with this` });
  }
}

/** A chance of what would be found, in words. */
const sayOften = (chance: number): string => `${Math.max(1, Math.round(100 * chance))} in 100`;

/** An answer's option in words. */
export const sayOption = ({ answer }: Check, said: string): string =>
  (answer.kind === 'choice' ? answer.choices : answer.kind === 'grade' ? answer.grades : []).find(
    ({ id }) => id === said,
  )?.title ??
  gradeTitles[said] ??
  said;

/** A check's number in words. */
export function sayNumber({ answer }: Check, value: number, unit: PressureUnit): string {
  const measure = answer.kind === 'number' ? answer.unit : 'psi';
  const by = Math.max(0, value);
  if (measure === 'psi')
    return answer.kind === 'points'
      ? `${sayPressure(value, unit)} out for in`
      : sayPressure(by, unit);
  if (measure === 'psi/min') return `${sayPressure(by, unit)} a minute`;
  return `${rounded(by, measure === 's' ? 1 : 0)} ${measure}`;
}

/** How bad a fault is at a severity: a leak by its hole, others in a word. */
export function sayHowBad({ id }: Pick<Fault, 'id'>, severity: number): string {
  if (/^(leak|seat|pierced|centre seal)/.test(id)) {
    const scfm = LEAST_SCFM * (MOST_SCFM / LEAST_SCFM) ** severity;
    return `about ${rounded(scfm, scfm < 1 ? 2 : 1)} scfm, a hole of ${rounded(equivalentHoleMm(scfm, GRADED_AT_PSI), 1)} mm`;
  }
  return severity < 0.35 ? 'slight' : severity < 0.7 ? 'plain' : 'bad';
}
