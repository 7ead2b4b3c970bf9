import type { AnyHeader, Unit } from '@keen-bleed/contract';
import { runMade } from '@keen-bleed/core';
import { ask, RequestProblem } from '../wire/api';
import { changeLog, keptLog } from './logs';

/**
 * Puts a log that the server has not taken on the units, and a run by the rule set, as the shop has them now: the way
 * out where it was made on words the shop never kept. Its facts stay as they are.
 */
export async function asTheShopHasIt(logId: string): Promise<void> {
  const kept = await keptLog(logId);
  if (!kept || kept.log.opened === 1) return;
  const { header } = kept.log;
  const units = await ask('GET', '/api/v1/units');
  const now = (old: Unit): Unit => {
    const found = units.find(({ id }) => id === old.id);
    if (found) return found;
    throw new RequestProblem('not-found', `Unit ${old.number} is no longer in this shop.`);
  };
  if (header.kind !== 'run') {
    const made = { ...header.made, units: header.made.units.map(now) };
    await changeLog(logId, { header: { ...header, made } as AnyHeader, refused: null });
    return;
  }
  const { sets } = await ask('GET', '/api/v1/rule-sets');
  const { unit, towed, ruleSet, steps: _asked, ...rest } = header.made;
  const same = sets.find(({ id }) => id === ruleSet.id);
  if (!same) {
    throw new RequestProblem(
      'not-found',
      `The shop no longer has the rule set “${ruleSet.title}”.`,
    );
  }
  const made = runMade({ ...rest, unit: now(unit), towed: towed.map(now), ruleSet: same });
  await changeLog(logId, { header: { ...header, made }, refused: null });
}
