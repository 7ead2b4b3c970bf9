import type { OpenRun, RuleSet, Unit } from '@keen-bleed/contract';
import { checkCoupling, checkRuleSet, checkUnit, ruleSetById } from '@keen-bleed/core';
import { and, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { runs, runUnits, units } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { findRuleSet } from '../ruleSets/shopRuleSets';
import { unitRecord } from '../units/unitRecord';

/** Steps that may be found not due when a run starts; all others are left out by a reason, in the run. */
const MAY_NOT_BE_DUE = new Set(['drain']);

/**
 * Opens a run, once. A phone may have started it hours ago without network, so units and rule set are taken as
 * they were sent, unless they claim a revision the shop has in other words.
 *
 * @returns whether it was new
 */
export async function openRun(
  db: Db,
  who: { shopId: string; personId: string },
  header: OpenRun,
): Promise<boolean> {
  if (header.unit.id !== header.unitId) {
    throw fieldError('unit.id', 'The unit as it was must be the unit of the run.');
  }
  const notDue = header.leftOut.find((stepId) => !MAY_NOT_BE_DUE.has(stepId));
  if (notDue !== undefined) {
    throw fieldError('leftOut', `“${notDue}” is always due: skip it in the run, with a reason.`);
  }
  const [unit, ...towed] = await asKept(db, who.shopId, [header.unit, ...header.towed]);
  if (!unit) throw notFound('unit');
  if (towed.length > 0) {
    // What has been retired since was in service when the phone started the run.
    const inService = [unit, ...towed].map((each) => ({ ...each, retiredAtMs: null }));
    const problem = checkCoupling(inService)[0];
    if (problem) throw fieldError(problem.field, problem.message);
  }
  const ruleSet = await ruleSetAsKept(db, who.shopId, header.ruleSet);

  const isNew = await db.transaction(async (tx) => {
    const inserted = await tx
      .insert(runs)
      .values({
        shopId: who.shopId,
        id: header.id.toLowerCase(),
        unitId: header.unitId,
        rigId: header.rigId,
        personId: who.personId,
        startedAtMs: header.startedAtMs,
        unit,
        towed,
        ruleSet,
        leftOut: header.leftOut,
      })
      .onConflictDoNothing()
      .returning({ id: runs.id });
    const run = inserted[0];
    if (!run) return false;
    await tx.insert(runUnits).values(
      [unit, ...towed].map((each) => ({
        shopId: who.shopId,
        unitId: each.id,
        runId: run.id,
        startedAtMs: header.startedAtMs,
      })),
    );
    return true;
  });
  if (isNew) return true;
  const [mine] = await db
    .select({ personId: runs.personId, unitId: runs.unitId })
    .from(runs)
    .where(and(eq(runs.shopId, who.shopId), eq(runs.id, header.id)));
  if (mine?.personId !== who.personId || mine.unitId !== header.unitId) {
    throw new ApiError('id-taken', 'Another run has this id.');
  }
  return false;
}

/** Units as the shop keeps them where the phone had the newest revision, otherwise as the phone had them. */
async function asKept(db: Db, shopId: string, sent: readonly Unit[]): Promise<Unit[]> {
  const rows = await db
    .select()
    .from(units)
    .where(
      and(
        eq(units.shopId, shopId),
        inArray(
          units.id,
          sent.map((unit) => unit.id),
        ),
      ),
    );
  return sent.map((unit, at) => {
    const row = rows.find((each) => each.id === unit.id.toLowerCase());
    if (!row) throw notFound('unit');
    const field = at === 0 ? 'unit' : `towed.${at - 1}`;
    const current = unitRecord(row);
    if (unit.revision > current.revision) {
      throw fieldError(`${field}.revision`, `This unit is at revision ${current.revision}.`);
    }
    const { id: _id, revision: _revision, retiredAtMs: _retired, ...draft } = unit;
    const problem = checkUnit(draft)[0];
    if (problem) throw fieldError(`${field}.${problem.field}`, problem.message);
    return unit.revision === current.revision ? current : unit;
  });
}

async function ruleSetAsKept(db: Db, shopId: string, sent: RuleSet): Promise<RuleSet> {
  const current = await findRuleSet(db, shopId, sent.id);
  if (!current) throw fieldError('ruleSet.id', `There is no rule set "${sent.id}".`);
  if (sent.revision > current.revision) {
    throw fieldError('ruleSet.revision', `This rule set is at revision ${current.revision}.`);
  }
  if (sent.revision < current.revision) {
    const problem = checkRuleSet(sent)[0];
    if (problem) throw fieldError(`ruleSet.${problem.field}`, problem.message);
    return sent;
  }
  // The phone walks the steps it was given: they have to be the very ones the server will judge by.
  if (ruleSetById(sent.id) && JSON.stringify(sent.steps) !== JSON.stringify(current.steps)) {
    throw fieldError('ruleSet', 'The app on this device is out of date: reload it once.');
  }
  return current;
}

function fieldError(field: string, message: string): ApiError {
  return new ApiError('not-right', message, [{ field, message }]);
}
