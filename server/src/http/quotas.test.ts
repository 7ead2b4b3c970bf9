import { v7 as uuidv7 } from 'uuid';
import { aPhoto } from '../test/aPhoto';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  truckDraft,
  type Refusal,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { DEFAULT_QUOTAS, quotasFrom } from './quotas';

describe('quotas from the surroundings', () => {
  it('are the usual ones, each raised by its setting alone', () => {
    expect(quotasFrom({})).toEqual({
      units: 5000,
      people: 500,
      photosOfRecord: 300,
      photos: 50000,
    });
    expect(quotasFrom({ MOST_UNITS: '7', MOST_PHOTOS: '' })).toEqual({
      ...DEFAULT_QUOTAS,
      units: 7,
    });
    expect(quotasFrom({ MOST_PHOTOS_OF_RECORD: '1' }).photosOfRecord).toBe(1);
    expect(quotasFrom({ MOST_PEOPLE: '1' }).people).toBe(1);
  });

  it.each(['0', '-4', '2.5', 'many', '1e99'])('do not start with %s', (given) => {
    expect(() => quotasFrom({ MOST_PHOTOS: given })).toThrow(
      'MOST_PHOTOS must be a whole number of photos, such as 1000.',
    );
  });
});

describe('a shop that has as much as it may', () => {
  const quotas = { ...DEFAULT_QUOTAS };
  let shop: TestShop;
  let staff: Staff;
  beforeAll(async () => {
    shop = await openTestShop({ quotas });
    staff = await makeStaff(shop, 'quotas');
  });
  afterAll(() => shop.close());
  beforeEach(() => Object.assign(quotas, DEFAULT_QUOTAS));

  const photoIn = async (number: string) => {
    const header = runHeader(await addTruck(staff.lead, number));
    await staff.technician.post('/api/logs').send(header).expect(201);
    const jpeg = await aPhoto();
    return (id: string) =>
      staff.technician
        .put(`/api/photos/${id}?logId=${header.id}`)
        .set('content-type', 'image/jpeg')
        .send(jpeg);
  };
  const words = (answer: { body: unknown }) => (answer.body as Refusal).message;

  it('has no more photos in a record, takes one that it has again, and takes more once it may', async () => {
    const put = await photoIn('1');
    const elsewhere = await photoIn('2');
    quotas.photosOfRecord = 2;
    const [first, second, third] = [uuidv7(), uuidv7(), uuidv7()];
    await put(first).expect(201);
    await put(second).expect(201);
    expect(words(await put(third).expect(409))).toBe(
      'There is no room for more photos in this record: the limit is 2. Whoever runs the server can allow more (MOST_PHOTOS_OF_RECORD).',
    );
    await put(second).expect(200);
    await elsewhere(uuidv7()).expect(201);
    quotas.photosOfRecord = 3;
    await put(third).expect(201);
  });

  it('has no more photos in all', async () => {
    const put = await photoIn('3');
    const there = await shop.database.pool.query<{ n: number }>(
      'select count(*)::int n from blobs',
    );
    quotas.photos = (there.rows[0]?.n ?? 0) + 1;
    await put(uuidv7()).expect(201);
    expect(words(await put(uuidv7()).expect(409))).toMatch(
      /^There is no room for more photos: the limit is \d+\. .*\(MOST_PHOTOS\)/,
    );
  });

  it('has no more people and no more units', async () => {
    const body = {
      id: uuidv7(),
      name: 'Nora Vance',
      signInName: 'noraq',
      role: 'viewer',
      password: 'rain over gravel',
    };
    const has = ((await staff.lead.get('/api/people').expect(200)).body as unknown[]).length;
    quotas.people = has;
    expect(words(await staff.lead.post('/api/people').send(body).expect(409))).toContain(
      'MOST_PEOPLE',
    );
    quotas.people = has + 1;
    await staff.lead.post('/api/people').send(body).expect(201);
    quotas.units = 3;
    const another = { id: uuidv7(), draft: truckDraft('4') };
    expect(words(await staff.lead.post('/api/units').send(another).expect(409))).toContain(
      'MOST_UNITS',
    );
    // What was refused left nothing behind.
    quotas.units = 4;
    await staff.lead.post('/api/units').send(another).expect(201);
  });

  it('has no more though forty are asked for at once', async () => {
    const count = async (table: 'units' | 'people' | 'blobs') =>
      (
        await shop.database.pool.query<{ n: number }>(
          `select count(*)::int n from ${table} where shop_id = $1`,
          [staff.shopId],
        )
      ).rows[0]?.n ?? 0;
    const put = await photoIn('40');
    const forty = (ask: (n: number) => PromiseLike<{ status: number }>) =>
      Promise.all(Array.from({ length: 40 }, (_, n) => ask(n)));
    const taken = (answers: readonly { status: number }[]) =>
      answers.filter(({ status }) => status === 201).length;
    quotas.units = (await count('units')) + 2;
    const made = await forty((n) =>
      staff.lead.post('/api/units').send({ id: uuidv7(), draft: truckDraft(`T${n}`) }),
    );
    expect([taken(made), await count('units')]).toEqual([2, quotas.units]);
    quotas.photos = (await count('blobs')) + 2;
    const kept = await forty(() => put(uuidv7()));
    expect([taken(kept), await count('blobs')]).toEqual([2, quotas.photos]);
  });
});
