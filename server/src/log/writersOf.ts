import { and, eq } from 'drizzle-orm';
import type { RunState } from '@keen-bleed/core';
import type { Db } from '../db/database';
import { facts, people } from '../db/schema';

/** Who wrote in each lane, by name. */
export async function writersOf(
  db: Db,
  shopId: string,
  logId: string,
): Promise<Record<string, string>> {
  const rows = await db
    .selectDistinct({ lane: facts.lane, name: people.name })
    .from(facts)
    .innerJoin(people, and(eq(people.shopId, facts.shopId), eq(people.id, facts.personId)))
    .where(and(eq(facts.shopId, shopId), eq(facts.logId, logId)));
  return Object.fromEntries(rows.map(({ lane, name }) => [lane, name]));
}

/** Who made a run, such as `Idris Fenn, taken over by Maren Osk`. */
export function sayBy(
  openedBy: string,
  { takeOvers }: Pick<RunState, 'takeOvers'>,
  writers: Readonly<Record<string, string>>,
): string {
  const takers = new Set(takeOvers.flatMap(({ lane }) => writers[lane] ?? []));
  takers.delete(openedBy);
  return takers.size === 0 ? openedBy : `${openedBy}, taken over by ${[...takers].join(' and ')}`;
}
