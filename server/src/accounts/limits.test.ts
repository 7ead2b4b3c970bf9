import { openTestShop, type TestShop } from '../test/testShop';
import { Limit, tried } from './limits';

let shop: TestShop;
beforeAll(async () => {
  shop = await openTestShop();
});
afterAll(() => shop.close());

const tooMany = { body: { code: 'too-many-tries' } };
const taken = async (limit: Limit, key: string, times: number) => {
  for (let n = 0; n < times; n += 1) await limit.take(key);
};

it('lets so many through and no more, by name and by key', async () => {
  const { pool } = shop.database;
  const limit = new Limit(pool, 'by-name', 3);
  await taken(limit, 'idris', 3);
  await expect(limit.take('idris')).rejects.toMatchObject(tooMany);
  await taken(limit, 'paula', 3);
  await taken(new Limit(pool, 'by-address', 3), 'idris', 3);
  // Another server of the installation counts with it.
  await expect(new Limit(pool, 'by-name', 3).take('idris')).rejects.toMatchObject(tooMany);
});

it('gives back what was right, and keeps what was wrong', async () => {
  const limit = new Limit(shop.database.pool, 'right', 2);
  for (let n = 0; n < 5; n += 1) {
    expect(await tried([[limit, 'idris']], () => Promise.resolve(7))).toBe(7);
  }
  const wrong = () => tried([[limit, 'idris']], () => Promise.reject(new Error('wrong')));
  await expect(wrong()).rejects.toThrow('wrong');
  await expect(wrong()).rejects.toThrow('wrong');
  const work = jest.fn(() => Promise.resolve(7));
  await expect(tried([[limit, 'idris']], work)).rejects.toMatchObject(tooMany);
  // It is not even looked at.
  expect(work).not.toHaveBeenCalled();
});

it('counts in every way that is asked', async () => {
  const { pool } = shop.database;
  const [wide, narrow] = [new Limit(pool, 'wide', 9), new Limit(pool, 'narrow', 1)];
  const counted = [[wide, 'a'] as const, [narrow, 'b'] as const];
  await expect(tried(counted, () => Promise.reject(new Error('wrong')))).rejects.toThrow('wrong');
  await expect(tried(counted, () => Promise.resolve(7))).rejects.toMatchObject(tooMany);
});

it('does not count for an address what a name’s own limit turned away', async () => {
  const { pool } = shop.database;
  const [address, name] = [new Limit(pool, 'address', 3), new Limit(pool, 'own-name', 1)];
  const wrong = (who: string) =>
    tried([[address, 'shop'] as const, [name, who] as const], () =>
      Promise.reject(new Error('wrong')),
    );
  await expect(wrong('idris')).rejects.toThrow('wrong');
  for (let n = 0; n < 9; n += 1) await expect(wrong('idris')).rejects.toMatchObject(tooMany);
  // Wrong passwords do count, whoever’s: two more, and then nobody.
  await expect(wrong('paula')).rejects.toThrow('wrong');
  await expect(wrong('maren')).rejects.toThrow('wrong');
  await expect(wrong('joss')).rejects.toMatchObject(tooMany);
});
