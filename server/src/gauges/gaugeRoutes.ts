import { and, eq, inArray } from 'drizzle-orm';
import { createSession } from 'better-sse';
import { Router } from 'express';
import { signedInAs } from '../accounts/session';
import type { Db } from '../db/database';
import { units } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { pathId } from '../http/checked';
import { coupledRigs } from '../rigs/rigRoutes';
import { unitRecord } from '../units/unitRecord';
import { GaugeHub } from './gaugeHub';

/** The wireless gauge set of a unit, as a stream; only for those who record. */
export function gaugeRoutes(db: Db, onTrouble: (error: unknown) => void): Router {
  const router = Router();
  const hub = new GaugeHub(onTrouble);
  router.get('/units/:id/gauges/live', async (request, response) => {
    const me = await signedInAs(db, request, 'technician', 'lead');
    const unitId = pathId(request, 'id', 'unit');
    const rig = (await coupledRigs(db, me.shopId)).find((each) => each.unitIds[0] === unitId);
    const ids = rig?.unitIds ?? [unitId];
    const rows = await db
      .select()
      .from(units)
      .where(and(eq(units.shopId, me.shopId), inArray(units.id, [...ids])));
    const [unit, ...towed] = ids.flatMap((id) => {
      const row = rows.find((each) => each.id === id);
      return row ? [unitRecord(row)] : [];
    });
    if (!unit) throw notFound('unit');
    if (!unit.governor) {
      throw new ApiError('not-right', 'A gauge set is linked to the unit with the engine.');
    }
    hub.of(me.shopId, { unit, towed }).register(await createSession(request, response));
  });
  return router;
}
