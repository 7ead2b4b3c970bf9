import type pg from 'pg';
import { makeStaff, openTestShop } from '../test/testShop';
import { SessionStore } from './sessionStore';

it('clears away by itself the sessions that have run out, and no others', async () => {
  const shop = await openTestShop();
  jest.useFakeTimers({ doNotFake: ['nextTick', 'setImmediate', 'setTimeout', 'performance'] });
  try {
    await makeStaff(shop, 'sessions');
    const { pool } = shop.database;
    const count = async (where: string) =>
      (await pool.query<{ n: number }>(`select count(*)::int as n from sessions where ${where}`))
        .rows[0]?.n;
    const all = (await count('true')) ?? 0;
    expect(all).toBeGreaterThan(1);
    await pool.query(
      `update sessions set expire = now() - interval '1 second'
       where sid = (select sid from sessions order by sid limit 1)`,
    );
    const asked: Promise<unknown>[] = [];
    const watched = {
      query: (text: string) => {
        const answer = pool.query(text);
        asked.push(answer);
        return answer;
      },
    };
    new SessionStore(watched as unknown as pg.Pool);
    jest.advanceTimersByTime(15 * 60_000 - 1);
    expect(asked).toHaveLength(0);
    jest.advanceTimersByTime(1);
    await Promise.all(asked);
    expect(asked).toHaveLength(1);
    expect(await count('true')).toBe(all - 1);
    expect(await count('expire < now()')).toBe(0);
  } finally {
    jest.useRealTimers();
    await shop.close();
  }
});
