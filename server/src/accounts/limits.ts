import type pg from 'pg';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { ApiError } from '../http/apiError';

const QUARTER_HOUR_S = 900;

/** Counts tries in the database, so that all servers of an installation count together. */
export class Limit {
  private readonly counter: RateLimiterPostgres;

  /**
   * @param name what is counted; part of the key
   * @param most tries in a quarter of an hour
   */
  constructor(pool: pg.Pool, name: string, most: number) {
    this.counter = new RateLimiterPostgres({
      storeClient: pool,
      tableName: 'tries',
      tableCreated: true,
      keyPrefix: name,
      points: most,
      duration: QUARTER_HOUR_S,
      clearExpiredByTimeout: true,
    });
  }

  /** @throws ApiError `too-many-tries` where there have been too many */
  async take(key: string): Promise<void> {
    try {
      await this.counter.consume(key);
    } catch (refused) {
      if (!(refused instanceof RateLimiterRes)) throw refused;
      throw new ApiError(
        'too-many-tries',
        'Too many tries. Wait a quarter of an hour, then try again.',
      );
    }
  }

  /** Gives a try back: it was right. */
  async giveBack(key: string): Promise<void> {
    await this.counter.reward(key);
  }
}

/** A try that counts in several ways. */
export type Counted = readonly (readonly [limit: Limit, key: string])[];

/**
 * Does what somebody tries; what goes right does not count. What one limit turns away does not count for the others:
 * tries on one name must not lock out everybody behind the same address.
 *
 * @throws ApiError `too-many-tries` before it is done
 */
export async function tried<T>(counted: Counted, work: () => Promise<T>): Promise<T> {
  const taken: (readonly [Limit, string])[] = [];
  const giveBack = async () => {
    for (const [limit, key] of taken) await limit.giveBack(key);
  };
  for (const each of counted) {
    const [limit, key] = each;
    try {
      await limit.take(key);
    } catch (refused) {
      await giveBack();
      throw refused;
    }
    taken.push(each);
  }
  const done = await work();
  await giveBack();
  return done;
}
