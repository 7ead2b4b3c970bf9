import { AuditPageSchema } from '@keen-bleed/contract';
import { and, desc, eq, lt } from 'drizzle-orm';
import type { Db } from '../db/database';
import { audit } from '../db/schema';
import { LEADS, route, type Route } from '../http/route';

const PAGE = 100;

/** The audit trail, for leads. */
export function auditRoutes(db: Db): Route[] {
  return [
    route({
      method: 'get',
      path: '/audit',
      who: LEADS,
      body: null,
      query: 'pageQuery',
      answers: AuditPageSchema,
      does: async ({ me, query: { after } }) => {
        const rows = await db
          .select()
          .from(audit)
          .where(and(eq(audit.shopId, me.shopId), after ? lt(audit.id, after) : undefined))
          .orderBy(desc(audit.id))
          .limit(PAGE + 1);
        const shown = rows.slice(0, PAGE);
        return {
          body: {
            rows: shown.map(({ id, at, by, what, about, address }) => ({
              ...{ id, by, what, about, address },
              atMs: at.getTime(),
            })),
            next: rows.length > PAGE ? (shown.at(-1)?.id ?? null) : null,
          },
        };
      },
    }),
  ];
}
