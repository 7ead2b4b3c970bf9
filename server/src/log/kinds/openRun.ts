import type { RunHeader } from '@keen-bleed/contract';
import { checkAsked, checkCoupling } from '@keen-bleed/core';
import { notFound } from '../../http/apiError';
import { fieldError } from '../../http/fieldError';
import { ruleSetAsKept } from '../../ruleSets/ruleSetAsKept';
import { unitsAsKept } from '../../units/unitRevisions';
import type { Opener } from '../openLog';

/** Steps that may be found not due when a run starts; all others are left out by a reason, in the run. */
const MAY_NOT_BE_DUE = new Set(['drain']);

/** A run: units and rule set as the shop kept them, and just the steps that follow from the two. */
export const openRun: Opener = async (db, me, sent) => {
  const header = sent as RunHeader;
  const { unit: front, towed, ruleSet, leftOut } = header.made;
  if (front.id !== header.subject.unitId) {
    throw fieldError('made.unit.id', 'The unit as it was must be the unit of the run.');
  }
  // A retest asks what repairs owe and no more; it is no whole test, and says so.
  const notDue = header.made.retestOf
    ? undefined
    : leftOut.find((stepId) => !MAY_NOT_BE_DUE.has(stepId));
  if (notDue !== undefined) {
    throw fieldError(
      'made.leftOut',
      `“${notDue}” is always due: skip it in the run, with a reason.`,
    );
  }
  const [unit, ...behind] = await unitsAsKept(db, me.shopId, [front, ...towed], (at) =>
    at === 0 ? 'made.unit' : `made.towed.${at - 1}`,
  );
  if (!unit) throw notFound('unit');
  if (behind.length > 0) {
    // What has been retired since was in service when the phone started the run.
    const inService = [unit, ...behind].map((each) => ({ ...each, retiredAtMs: null }));
    const problem = checkCoupling(inService)[0];
    if (problem) throw fieldError(`made.${problem.field}`, problem.message);
  }
  const made = {
    unit,
    towed: behind,
    ruleSet: await ruleSetAsKept(db, me.shopId, ruleSet, 'made.ruleSet'),
    leftOut,
    ...(header.made.retestOf ? { retestOf: header.made.retestOf } : {}),
    ...(header.made.also ? { also: header.made.also } : {}),
    steps: header.made.steps,
  };
  const problem = checkAsked(made, header.coreVersion);
  if (problem) throw fieldError(`made.${problem.field}`, problem.message);
  return { header: { ...header, made }, units: [unit, ...behind] };
};
