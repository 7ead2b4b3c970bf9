/**
 * Whether a retest was made after the work that owes it: the one rule for job, server and screens. Both moments are by
 * the server's clock, each device's by its measured offset; when something arrived does not count.
 *
 * @param workMs when the work was recorded as done
 * @param testedMs when the run was begun, or the first of its checks made
 */
export const isAfterWork = (workMs: number, testedMs: number): boolean => testedMs >= workMs;

/**
 * Whether what passed in a run counts for what is owed, and closes what was open: a retest by each of its steps, any
 * other run only where it was not cut short.
 */
export const provesItsSteps = (
  made: { retestOf?: readonly string[] | undefined },
  outcome: { cutShort?: true | undefined },
): boolean => made.retestOf !== undefined || outcome.cutShort !== true;

/**
 * Whether a run was made with every unit in it that was worked on: a trailer’s relay is not proved by its tractor alone.
 *
 * @param workedOn ids of the units that were worked on
 * @param tested ids of the units of the run
 */
export const hasWorkedOn = (workedOn: readonly string[], tested: readonly string[]): boolean =>
  workedOn.every((unitId) => tested.includes(unitId));
