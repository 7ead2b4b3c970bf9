import type { Figure, FoundAtParts, Outcome } from '@keen-bleed/contract';
import type { CheckAnswer } from '../checks/check';
import type { Evidence, RunEvidence } from './evidence';
import type { LampFigure, NumberFigure } from './runFigures';

/** Stop lamps of a sound unit are lit by this, psi at the pedal. */
const LIT_BY_PSI = 9;

/** A run that was made, as far as suspects are weighed by it. */
export interface JudgedForSuspects {
  outcome: Pick<Outcome, 'figures' | 'findings'>;
  /** The gauge its holds were read from. */
  gauge: string | null;
  atMs: number;
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

/** What a closed run says of suspects: its figures with their doubt, and looks that were not right. */
export function evidenceOfRun({ outcome, gauge, atMs }: JudgedForSuspects): Evidence[] {
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
    ...(gauge === 'master' ? { gaugeChecked: true } : {}),
  };
  const looks = outcome.findings.flatMap(({ standing, stepId, key }): Evidence[] =>
    standing === 'bad' ? [{ kind: 'look', atMs, key: `look:${stepId}/${key}` }] : [],
  );
  return [...(Object.keys(figures).length > 0 ? [run] : []), ...looks];
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
