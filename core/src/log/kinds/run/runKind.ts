import type { RunFact, RunHeader } from '@keen-bleed/contract';
import { headVerdict } from '../../../reading/figureParts';
import { outcomeOf } from '../../../reading/outcomeOf';
import { decisiveFigure, decisiveFinding } from '../../../reading/worst';
import { admit } from '../../../run/admit';
import { NOT_DONE_SAID } from '../../../run/findingsOf';
import { comesLate, RunLog } from '../../../run/runLog';
import type { RunState } from '../../../run/runState';
import type { LogKind, LogSummary } from '../../logKind';
import { runMigrations } from './runMigrations';

/** Version of the shape of a run's header and facts. */
export const RUN_VERSION = 2;

/** A run: the facts of one test, made by one person at a time, judged when it is closed. */
export const runKind: LogKind<RunHeader, RunFact, RunState> = {
  name: 'run',
  version: RUN_VERSION,
  writers: 'opener',
  takesLate: ({ state }, fact) => comesLate(state, fact),
  fold: ({ made }, facts) =>
    new RunLog({ title: made.ruleSet.title, steps: made.steps }, made.unit, facts),
  admit: ({ state }, fact) => admit(state, fact),
  summary,
  result: outcomeOfRun,
  upcast: runMigrations,
};

/** What a run comes to, in its own gauge's unit, by its own snapshot of rig and rule set. */
export function outcomeOfRun({ made }: Pick<RunHeader, 'made'>, state: RunState) {
  const { unit, towed, ruleSet } = made;
  return outcomeOf(state, { unit, towed, ruleSet, sayIn: unit.gauge.unit });
}

function summary(header: RunHeader, state: RunState): LogSummary {
  const { verdict, headline, figures, findings } = outcomeOfRun(header, state);
  const decisive = decisiveFigure(figures);
  return {
    verdict,
    headline: header.made.retestOf ? `Retest: ${headline}` : headline,
    owes: verdict === 'fail' ? ['retest'] : verdict === 'incomplete' ? ['test'] : [],
    // A bad finding is decisive without a number; its headline says it.
    decisive: decisiveFinding(findings, decisive) ? null : decisive,
    figures: figures.map((figure) => ({
      id: figure.id,
      value: figure.value,
      atMost: figure.atMost,
      unit: figure.unit,
      verdict: headVerdict(figure),
      limit: figure.limit,
    })),
    // A rig's leak is no unit's own.
    trend:
      header.made.towed.length === 0
        ? (figures.find((figure) => figure.id === 'static-leak')?.value ?? null)
        : null,
    drained: findings.some(({ key, said }) => key === 'water' && said !== NOT_DONE_SAID),
  };
}
