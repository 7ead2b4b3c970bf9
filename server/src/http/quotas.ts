import { eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { shops } from '../db/schema';
import { ApiError } from './apiError';

/** How much a shop may keep, by what it is of. */
export interface Quotas {
  units: number;
  people: number;
  photosOfRecord: number;
  photos: number;
}

/** Wide enough for the largest shop, and a bound for a script that has run wild. */
export const DEFAULT_QUOTAS: Readonly<Quotas> = {
  units: 5_000,
  people: 500,
  photosOfRecord: 300,
  photos: 50_000,
};

/** Devices a person is signed in on; the one that was used longest ago is signed out first. */
export const MOST_DEVICES = 20;

/** The setting that raises each, and what it counts. */
const OF: Readonly<Record<keyof Quotas, { setting: string; counts: string }>> = {
  units: { setting: 'MOST_UNITS', counts: 'units' },
  people: { setting: 'MOST_PEOPLE', counts: 'people' },
  photosOfRecord: { setting: 'MOST_PHOTOS_OF_RECORD', counts: 'photos in this record' },
  photos: { setting: 'MOST_PHOTOS', counts: 'photos' },
};

/**
 * The quotas that the surroundings ask for.
 *
 * @throws Error that names the setting, where it is no whole number above nothing
 */
export function quotasFrom(env: Readonly<Record<string, string | undefined>>): Quotas {
  const quotas = { ...DEFAULT_QUOTAS };
  for (const of of Object.keys(OF) as (keyof Quotas)[]) {
    const { setting, counts } = OF[of];
    const given = env[setting];
    if (given === undefined || given === '') continue;
    const most = Number(given);
    if (!Number.isSafeInteger(most) || most < 1)
      throw new Error(`${setting} must be a whole number of ${counts}, such as 1000.`);
    quotas[of] = most;
  }
  return quotas;
}

/**
 * Lets one request of a shop at a time look whether there is room, until its transaction ends: two that look at once
 * would both find the last place.
 */
export async function oneAtATime(tx: Db, shopId: string): Promise<void> {
  await tx.select({ id: shops.id }).from(shops).where(eq(shops.id, shopId)).for('no key update');
}

/** Refuses one more where a shop has as many as it may, and names who can let it have more, and by which setting. */
export function requireRoom(quotas: Quotas, of: keyof Quotas, has: number): void {
  if (has < quotas[of]) return;
  const { setting, counts } = OF[of];
  throw new ApiError(
    'quota-full',
    `There is no room for more ${counts}: the limit is ${quotas[of].toLocaleString('en')}. Whoever runs the server can allow more (${setting}).`,
  );
}
