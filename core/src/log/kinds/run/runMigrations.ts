import type { LookItem, RunMade, Step } from '@keen-bleed/contract';
import { drainApart, procedureFor } from '../../../procedure/procedureFor';
import type { Migration } from '../../logKind';

type Old = Record<string, unknown>;

/**
 * A run's migrations, each from its version to the next. They speak of what older versions kept, so nothing in them
 * follows a later change of the types.
 */
export const runMigrations: Readonly<Record<number, Migration>> = {
  /**
   * Until 0.2.0 a header did not say what was asked, and facts had neither lane nor clock offset. The steps are made
   * of the rig and the rule set; a lane is the run itself, since one device wrote it; its clock is taken at its word.
   */
  1: {
    header: (old, facts) => {
      const { id, unitId, rigId, startedAtMs, unit, towed, ruleSet, leftOut, coreVersion } = old;
      const on = { unit, towed, ruleSet, leftOut } as Omit<RunMade, 'steps'>;
      return {
        id,
        kind: 'run',
        subject: { unitId, rigId, partId: null },
        startedAtMs,
        offsetMs: 0,
        coreVersion: coreVersion ?? '0.2.0',
        made: { ...on, steps: stepsAsked(on, facts) },
      };
    },
    fact: (old, { id }) => ({ ...old, lane: id, offsetMs: 0 }),
  },
};

/** The steps of a run that did not keep them: every step its facts speak of is among them. */
function stepsAsked(on: Omit<RunMade, 'steps'>, facts: readonly Old[]): Step[] {
  const speaksOf = (stepId: string) => facts.some((fact) => fact.stepId === stepId);
  // Draining was a step of its own before it was done in the walk round the rig.
  const { steps } = procedureFor(
    on,
    on.ruleSet,
    on.leftOut.filter((stepId) => !speaksOf(stepId)),
    speaksOf('drain') ? drainApart : {},
  );
  const known = new Set(steps.map((step) => step.id));
  const lost = facts.flatMap((fact) =>
    typeof fact.stepId === 'string' && !known.has(fact.stepId) ? [fact.stepId] : [],
  );
  return [
    ...steps.map(asAskedBefore),
    ...[...new Set(lost)].map((stepId) => unknownStep(stepId, facts)),
  ];
}

const ITEMS_BEFORE: Readonly<Record<string, Partial<LookItem>>> = {
  stop: {
    ask: 'Service brakes at walking pace',
    options: [
      { value: 'straight', title: 'straight stop', standing: 'good' },
      {
        value: 'pull-left',
        title: 'pulls left',
        standing: 'bad',
        means: 'The right side brakes less: stroke, lining, or a restricted line there.',
      },
      {
        value: 'pull-right',
        title: 'pulls right',
        standing: 'bad',
        means: 'The left side brakes less: stroke, lining, or a restricted line there.',
      },
      {
        value: 'late',
        title: 'late',
        standing: 'bad',
        means: 'Unlike crack pressures, a restricted control line, or too long a stroke.',
      },
      {
        value: 'no-stop',
        title: 'no stop',
        standing: 'bad',
        means: 'Out of service: do not move it.',
      },
    ],
  },
  'breakaway-hold': {
    options: [
      { value: 'not-timed', title: 'not timed', standing: 'noted' },
      { value: 'holds', title: 'holds', standing: 'good' },
      {
        value: 'lets-go',
        title: 'lets go',
        standing: 'bad',
        means:
          'The old trailer’s tank or check valve leaks: it has no springs to hold it. Chock it.',
      },
    ],
  },
};

/** A step with what has been asked in other words since put back as those versions asked it. */
function asAskedBefore(step: Step): Step {
  const { act } = step;
  if ((act.kind !== 'look' && act.kind !== 'ready') || !act.items) return step;
  const items = act.items.map((item) => ({ ...item, ...ITEMS_BEFORE[item.key] }));
  return { ...step, act: { ...act, items } };
}

/** A step that this version cannot make: what was answered or marked in it stands as it was kept. */
function unknownStep(stepId: string, facts: readonly Old[]): Step {
  const own = facts.filter((fact) => fact.stepId === stepId);
  const answers = own.flatMap((fact) =>
    Object.entries((fact.answers ?? {}) as Record<string, string>),
  );
  const keys = own.flatMap((fact) => (typeof fact.key === 'string' ? [fact.key] : []));
  const items: LookItem[] = answers.map(([key, value]) => ({
    key,
    ask: key,
    options: [{ value, title: value, standing: 'noted' }],
  }));
  return {
    id: stepId,
    title: stepId,
    say: [],
    cautions: [],
    act:
      items.length > 0
        ? { kind: 'look', items }
        : {
            kind: 'marks',
            marks: [...new Set(keys)].map((key) => ({
              key,
              pad: key,
              hint: '',
              at: 'needle',
              proposal: { from: 'last' },
            })),
          },
    reckon: [],
    windowFigures: [],
    maySkip: true,
    required: false,
  };
}
