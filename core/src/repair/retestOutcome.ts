import type { Figure, FigureUnit, JobReading, Outcome, PressureUnit } from '@keen-bleed/contract';
import { headVerdict } from '../reading/figureParts';
import { figureTitles, sayFigureLine } from '../reading/figureWords';
import { rounded, sayFigure } from '../units/say';
import { NOT_DONE_SAID } from '../run/findingsOf';

/** What a run says of one step that was owed. */
export interface RetestOutcome {
  verdict: 'pass' | 'fail' | 'cant-tell';
  /** In a sentence. */
  said: string;
  readings: JobReading[];
}

/** A leak that is so much above what a sound rig loses is another one, or the same one still, psi/min. */
const TOO_MUCH_PSI_PER_MIN = 1;

/**
 * Readings that pass their limits and are still not what a sound rig of this description should read: the repair did
 * not do all it should. Only leaks are told so; set points and times differ from rig to rig.
 */
export const shortOf = (readings: readonly JobReading[]): JobReading[] =>
  readings.filter(
    ({ unit, after, expected }) =>
      unit === 'psi/min' &&
      after !== null &&
      expected !== null &&
      after - expected > TOO_MUCH_PSI_PER_MIN,
  );

/** Where the limit of a figure comes from, in brackets; nothing where it has none. */
const sourceOf = ({ limit }: Pick<Figure, 'limit'>): string =>
  limit?.source ? ` (${limit.source})` : '';

type Judged = Pick<Outcome, 'figures' | 'findings' | 'skipped'>;

/** Readings that a record shows before and after. */
const MOST_READINGS = 12;

/**
 * What a run came to in one step; null where it was not done in it. A step fails by any figure or look of it that
 * failed, cannot be told while any of them cannot, and passes otherwise.
 *
 * @param before figures of the runs before the repair, the newest first; the first of an id counts
 * @param expected what the rig's twin says a sound one reads, by figure
 * @param sayIn the unit that pressures are said in: the rig's own gauge's
 */
export function retestOutcome(
  outcome: Judged,
  stepId: string,
  before: readonly Pick<Figure, 'id' | 'value'>[] = [],
  expected: Readonly<Partial<Record<Figure['id'], number>>> = {},
  sayIn: PressureUnit = 'psi',
): RetestOutcome | null {
  if (outcome.skipped.some((each) => each.stepId === stepId)) return null;
  const figures = outcome.figures.filter((figure) => figure.stepId === stepId);
  const findings = outcome.findings.filter((finding) => finding.stepId === stepId);
  const looked = findings.filter(({ said }) => said !== NOT_DONE_SAID);
  if (figures.length === 0 && looked.length === 0) return null;
  const readings = figures
    .filter(({ value }) => value !== null)
    .slice(0, MOST_READINGS)
    .map((figure): JobReading => ({
      title: figureTitles[figure.id],
      unit: figure.unit,
      before: before.find(({ id }) => id === figure.id)?.value ?? null,
      after: figure.value,
      expected: expected[figure.id] ?? null,
    }));
  const failed = figures.find((figure) => headVerdict(figure) === 'fail');
  const bad = looked.find(({ standing }) => standing === 'bad');
  if (failed) return { verdict: 'fail', said: sayFigureLine(failed, sayIn), readings };
  if (bad) return { verdict: 'fail', said: `${bad.title}: ${bad.said}`, readings };
  const undecided = looked.find(({ standing }) => standing === 'open');
  if (undecided)
    return { verdict: 'cant-tell', said: `${undecided.title}: ${undecided.said}`, readings };
  const open = figures.find((figure) => headVerdict(figure) === 'cant-tell');
  if (open) return { verdict: 'cant-tell', said: sayFigureLine(open, sayIn), readings };
  if (looked.length < findings.length)
    return {
      verdict: 'cant-tell',
      said: `${findings.find(({ said }) => said === NOT_DONE_SAID)?.title ?? ''}: not done`,
      readings,
    };
  const first = figures.find(({ value }) => value !== null);
  return {
    verdict: 'pass',
    said: (first
      ? `${sayFigureLine(first, sayIn)}${sourceOf(first)}`
      : looked
          .map(({ title, said, means }) => `${title}: ${said}${means ? `. ${means}` : ''}`)
          .join('. ')
    ).slice(0, 300),
    readings,
  };
}

const PRESSURES: ReadonlySet<string> = new Set(['psi', 'psi/min', 'psi/s']);

/** A reading in words, such as `0.4 psi/min`, in the unit that was chosen. */
export function sayReading(value: number, unit: string, sayIn: PressureUnit): string {
  if (!PRESSURES.has(unit)) return `${rounded(value, 1)} ${unit}`;
  return `${sayFigure(value, unit as FigureUnit, sayIn)} ${unit.replace('psi', sayIn)}`;
}
