import { and, eq, inArray } from 'drizzle-orm';
import type { Bus } from '../bus/bus';
import type { Db } from '../db/database';
import { units } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { RECORDERS, route, type Route } from '../http/route';
import type { Streams } from '../http/streams';
import { coupledRigs } from '../rigs/rigRoutes';
import { unitRecord } from '../units/unitRecord';
import { GaugeHub } from './gaugeHub';

/** The wireless gauge set of a unit, as a stream; only for those who record. */
export function gaugeRoutes(
  db: Db,
  bus: Bus,
  streams: Streams,
  onTrouble: (error: unknown) => void,
): Route[] {
  const hub = new GaugeHub(onTrouble, bus);
  return [
    route({
      method: 'get',
      path: '/units/:id/gauges/live',
      who: RECORDERS,
      body: null,
      query: null,
      answers: 'stream',
      does: async ({ me, id, request, response }) => {
        const unitId = id('id', 'unit');
        const rig = (await coupledRigs(db, me.shopId)).find((each) => each.unitIds[0] === unitId);
        const ids = rig?.unitIds ?? [unitId];
        const rows = await db
          .select()
          .from(units)
          .where(and(eq(units.shopId, me.shopId), inArray(units.id, [...ids])));
        const [unit, ...towed] = ids.flatMap((each) => {
          const row = rows.find((one) => one.id === each);
          return row ? [unitRecord(row)] : [];
        });
        if (!unit) throw notFound('unit');
        if (!unit.governor) {
          throw new ApiError('not-right', 'A gauge set is linked to the unit with the engine.');
        }
        const session = await streams.start(me, request, response);
        if (session.isConnected) hub.of(me.shopId, { unit, towed }).register(session);
      },
    }),
  ];
}
