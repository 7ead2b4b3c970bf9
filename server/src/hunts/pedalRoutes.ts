import { PedalStandingSchema } from '@keen-bleed/contract';
import { and, eq } from 'drizzle-orm';
import type { Bus } from '../bus/bus';
import type { Db } from '../db/database';
import { units } from '../db/schema';
import { notFound } from '../http/apiError';
import { READERS, RECORDERS, route, type Route } from '../http/route';
import type { Streams } from '../http/streams';
import { PedalCalls } from './pedalCalls';

/** Calls to the pedal: those who record call; anybody of the shop may sit in the cab and hear them. */
export function pedalRoutes(db: Db, bus: Bus, streams: Streams): Route[] {
  const calls = new PedalCalls(bus);
  const known = async (shopId: string, unitId: string) => {
    const [row] = await db
      .select({ id: units.id })
      .from(units)
      .where(and(eq(units.shopId, shopId), eq(units.id, unitId)));
    if (!row) throw notFound('unit');
    return row.id;
  };
  return [
    route({
      method: 'post',
      path: '/units/:id/pedal',
      who: RECORDERS,
      body: 'callPedal',
      query: null,
      answers: PedalStandingSchema,
      does: async ({ me, id, body }) => {
        const unitId = await known(me.shopId, id('id', 'unit'));
        return { body: calls.call(me.shopId, unitId, body.call, body.seq) };
      },
    }),
    route({
      method: 'post',
      path: '/units/:id/pedal/heard',
      who: READERS,
      body: 'heardCall',
      query: null,
      answers: PedalStandingSchema,
      does: async ({ me, id, body }) => {
        const unitId = await known(me.shopId, id('id', 'unit'));
        return { body: calls.heard(me.shopId, unitId, body.seq) };
      },
    }),
    route({
      method: 'get',
      path: '/units/:id/pedal/live',
      who: READERS,
      body: null,
      query: null,
      answers: 'stream',
      does: async ({ me, id, request, response }) => {
        const unitId = await known(me.shopId, id('id', 'unit'));
        const session = await streams.start(me, request, response);
        const { channel, standing } = calls.follow(me.shopId, unitId);
        channel.register(session);
        const { call, seq } = standing;
        if (session.isConnected) session.push({ call, seq }, 'call');
      },
    }),
  ];
}
