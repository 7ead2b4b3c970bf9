import { YardRowsSchema } from '@keen-bleed/contract';
import type { Db } from '../db/database';
import { failureClosings } from '../db/schema';
import { notFound } from '../http/apiError';
import { fieldError } from '../http/fieldError';
import { LEADS, route, type Route } from '../http/route';
import { yardRows } from '../units/yardRows';
import {
  isClosedAlready,
  isClosedRun,
  openFailureKeys,
  refreshFailures,
  unitsOfLog,
} from './refreshFailures';

/** A lead may close a failure with a written reason; nothing else but a passed retest does. */
export function failureRoutes(db: Db): Route[] {
  return [
    route({
      method: 'post',
      path: '/failures/close',
      who: LEADS,
      body: 'closeFailure',
      query: null,
      answers: YardRowsSchema,
      does: async ({ me, body: { runId, key, reason } }) => {
        if (!(await isClosedRun(db, me.shopId, runId))) throw notFound('run');
        await db.transaction(async (tx) => {
          const unitIds = await unitsOfLog(tx, me.shopId, runId);
          const open = await openFailureKeys(tx, me.shopId, unitIds);
          // Sent again after an answer that was lost, the same word of the same lead is held already.
          if (await isClosedAlready(tx, me, { runId, key, reason })) return;
          if (!open.has(`${runId} ${key}`)) {
            throw fieldError('key', 'This failure is not open any more: look at the yard again.');
          }
          await tx
            .insert(failureClosings)
            .values({ shopId: me.shopId, logId: runId, key, reason, personId: me.personId })
            .onConflictDoNothing();
          await refreshFailures(tx, me.shopId, unitIds);
        });
        return { body: await yardRows(db, me.shopId) };
      },
    }),
  ];
}
