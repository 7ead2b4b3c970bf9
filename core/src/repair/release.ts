import { mayBeTaken, type JobState } from './jobState';

/** What else stands on the units of a job, as the server sees it. */
export interface AroundJob {
  /** Open failures on its units, each as run and key, with whether it takes the vehicle out of service. */
  failures: readonly { runId: string; key: string; title: string; critical: boolean }[];
  /** Why other open jobs hold the same units. */
  others: readonly string[];
}

/**
 * Why the vehicle of a job may not be released yet, each in words with what to do; empty where it may. The job itself
 * must have come to its end, nothing it was to close may still be open, and nothing else may keep the vehicle out of
 * service: no temporary measure, no retest owed and no critical failure of another job.
 */
export function releaseBlocks(state: JobState, { failures, others }: AroundJob): string[] {
  const own = new Set(state.header.made.failures.map(({ key }) => key));
  return [
    ...(state.fitted.length === 0 ? ['Nothing was fitted or mended yet.'] : []),
    ...state.measures
      .filter(({ undone }) => undone === null)
      .map(({ measure }) => `Undo first: ${measure.text}.`),
    ...state.owed
      .filter(({ passed }) => !passed)
      .map(({ id, title, done }) =>
        done?.verdict === 'fail'
          ? `${title} failed: mend it, then test it again.`
          : done && !mayBeTaken(id)
            ? `${title} proved nothing: stop again with speed and distance read, or use a roller tester.`
            : done
              ? `${title} could not be told: test it again, or a lead takes it as passed with a reason.`
              : `${title} has not been tested again.`,
      ),
    ...(state.fitted.length > 0 &&
    state.station !== 'release' &&
    state.owed.every(({ passed }) => passed)
      ? ['What was concluded is open again: prove what it is, and mend that.']
      : []),
    ...failures
      .filter(({ key, critical }) => critical || own.has(key))
      .map(({ title }) => `Still open on this vehicle: ${title}.`),
    ...others.map((hold) => `Another job holds this vehicle: ${hold}.`),
  ];
}
