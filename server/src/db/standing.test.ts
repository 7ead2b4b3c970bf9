import request from 'supertest';
import { openEmptyDatabase, testApp } from '../test/testShop';
import { migrateDatabase, schemaStanding } from './database';

describe('the tables of a database', () => {
  it('are brought up once, whoever starts at the same time', async () => {
    const { database } = await openEmptyDatabase();
    expect(await schemaStanding(database)).toBe('older');
    await request(testApp(database))
      .get('/ready')
      .expect(503, { ready: false, why: 'its tables are older' });
    await Promise.all([migrateDatabase(database), migrateDatabase(database)]);
    expect(await schemaStanding(database)).toBe('as it should be');
    await request(testApp(database)).get('/ready').expect(200, { ready: true });
    const { rows } = await database.pool.query<{ twice: number }>(
      'select (count(*) - count(distinct hash))::int as twice from drizzle.__drizzle_migrations',
    );
    expect(rows[0]?.twice).toBe(0);
    // As a version before this one leaves it.
    await database.pool.query(
      `delete from drizzle.__drizzle_migrations
       where created_at = (select max(created_at) from drizzle.__drizzle_migrations)`,
    );
    expect(await schemaStanding(database)).toBe('older');
    await request(testApp(database))
      .get('/ready')
      .expect(503, { ready: false, why: 'its tables are older' });
    await database.close();
  });

  it('of a newer version are not touched, and it is said what to do', async () => {
    const { database } = await openEmptyDatabase();
    await migrateDatabase(database);
    await database.pool.query(
      `insert into drizzle.__drizzle_migrations (hash, created_at) values ('of-tomorrow', 4102444800000)`,
    );
    await expect(migrateDatabase(database)).rejects.toThrow(/newer version.*restore a backup/);
    await request(testApp(database))
      .get('/ready')
      .expect(503, { ready: false, why: 'its tables are newer' });
    await database.close();
  });
});
