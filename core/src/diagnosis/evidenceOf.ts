import type { Figure, FoundAtParts, Outcome } from '@keen-bleed/contract';
import type { CheckAnswer } from '../checks/check';
import { headVerdict } from '../reading/figureParts';
import type { Evidence, RunEvidence, UsualFigures } from './evidence';
import type { LampFigure, NumberFigure } from './runFigures';

/** Stop lamps of a sound unit are lit by this, psi at the pedal. */
const LIT_BY_PSI = 9;

/** A run that was made, as far as suspects are weighed by it. */
export interface JudgedForSuspects {
  outcome: Pick<Outcome, 'figures' | 'findings'>;
  /** The gauge its holds were read from. */
  gauge: string | null;
  atMs: number;
  /** What the same rig showed before. */
  usual?: UsualFigures | null;
}

const PLAIN: Readonly<Partial<Record<Figure['id'], NumberFigure>>> = {
  'build-up-time': 'build-up',
  'cut-out': 'cut-out',
  'cut-in': 'cut-in',
  warning: 'warning',
  'pop-out-trailer': 'red',
  'pop-out-park': 'yellow',
};

/** Figures of holds, by the gauge they were read from. */
function holdFigure(id: Figure['id'], gauge: string | null): NumberFigure | null {
  const [, hold, other] = /^(static|applied)-leak(-other)?$/.exec(id) ?? [];
  if (hold !== 'static' && hold !== 'applied') return null;
  // A run that is read from one needle only, a master gauge's perhaps, is read from the first circuit.
  const isSecondary = (gauge === 'secondary') !== (other !== undefined);
  return `${hold} ${isSecondary ? 'secondary' : 'primary'}`;
}

/** A run as lists have it. */
export interface ListedRun {
  figures: readonly Pick<Figure, 'id' | 'value' | 'unit'>[];
}

/** Earlier runs than so many are another rig's, nearly: it wears and is mended. */
const MOST_PAST = 6;

/**
 * What a rig usually shows: medians over its earlier runs that passed.
 *
 * @param runs newest first, of the same rig
 * @param gauge the gauge that holds are read from
 */
export function usualOf(runs: readonly ListedRun[], gauge: string | null): UsualFigures | null {
  const some = runs.slice(0, MOST_PAST);
  const values = new Map<NumberFigure, number[]>();
  for (const { figures } of some) {
    for (const { id, value, unit } of figures) {
      if (value === null || (id === 'build-up-time' && unit !== 's')) continue;
      const as = PLAIN[id] ?? holdFigure(id, gauge);
      if (as) values.set(as, [...(values.get(as) ?? []), value]);
    }
  }
  if (values.size === 0) return null;
  const figures = Object.fromEntries(
    [...values].map(([figure, all]) => {
      const sorted = [...all].sort((a, b) => a - b);
      const middle = sorted.length / 2;
      const low = sorted[Math.ceil(middle) - 1]!;
      const high = sorted[Math.floor(middle)]!;
      return [figure, (low + high) / 2];
    }),
  );
  return { figures, runs: some.length };
}

/** What a closed run says of suspects: its figures with their doubt, and looks that were not right. */
export function evidenceOfRun({
  outcome,
  gauge,
  atMs,
  usual = null,
}: JudgedForSuspects): Evidence[] {
  const figures: Partial<Record<NumberFigure | LampFigure, number>> = {};
  const doubt: Partial<Record<NumberFigure, number>> = {};
  for (const figure of outcome.figures) {
    if (figure.value === null) continue;
    if (figure.id === 'stop-lamp') {
      figures['lamp light'] = figure.value <= LIT_BY_PSI ? 1 : 0;
      continue;
    }
    if (figure.id === 'build-up-time' && figure.unit !== 's') continue;
    const as = PLAIN[figure.id] ?? holdFigure(figure.id, gauge);
    if (!as) continue;
    figures[as] = figure.value;
    // Fall rates carry their own doubt; of levels the dial's share is in the model already.
    if (/^(static|applied)/.test(as) && figure.standardUncertainty !== null) {
      doubt[as] = Math.max(LEAST_DOUBT, figure.standardUncertainty);
    }
  }
  const run: RunEvidence = {
    kind: 'run',
    atMs,
    figures,
    doubt,
    // Written down is only that the engine ran at its governed speed, or at a fast idle.
    turnsUnknown: true,
    ...(usual ? { usual } : {}),
    ...(gauge === 'master' ? { gaugeChecked: true } : {}),
  };
  const looks = outcome.findings.flatMap(({ standing, stepId, key, answer }): Evidence[] =>
    standing === 'bad'
      ? [{ kind: 'look', atMs, key: `look:${stepId}/${key}${answer ? `/${answer}` : ''}` }]
      : [],
  );
  const hasFailed = outcome.figures.some((figure) => headVerdict(figure) === 'fail');
  return [
    ...(Object.keys(figures).length > 0 ? [run] : []),
    ...(hasFailed ? [{ kind: 'failed', atMs } as const] : []),
    ...looks,
  ];
}

/** No hold of a minute is known better than this, psi/min. */
const LEAST_DOUBT = 0.2;

/** What was found in visits, as far as suspects are weighed by it. */
export const evidenceOfFound = (found: FoundAtParts): Evidence[] =>
  found.flatMap(({ evidence, atMs }): Evidence[] => {
    switch (evidence?.kind) {
      case 'check':
        return [
          {
            kind: 'answer',
            atMs,
            checkId: evidence.checkId,
            answer: evidence.answer as CheckAnswer,
          },
        ];
      case 'complaint':
        return [{ kind: 'complaint', atMs, complaintId: evidence.complaintId }];
      case 'named':
        return [{ kind: 'named', atMs, fault: evidence.faultId }];
      default:
        return [];
    }
  });

/** What was found longer before a run than this belongs to another story, ms. */
const STORY_MS = 30 * 86_400_000;

/**
 * What still counts: since the last run that passed, or for a month before the newest run, whichever is later.
 *
 * @param soundMs when the last run passed, before the newest; null where none did
 */
export function stillCounts(
  evidence: readonly Evidence[],
  newestMs: number | null,
  soundMs: number | null,
): Evidence[] {
  const fromMs = Math.max(
    soundMs ?? -Infinity,
    newestMs === null ? -Infinity : newestMs - STORY_MS,
  );
  return evidence.filter(({ atMs, kind }) => kind === 'repair' || atMs > fromMs);
}
