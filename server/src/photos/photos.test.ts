import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { photoIdOf } from '@keen-bleed/contract/photo-name';
import pg from 'pg';
import sharp from 'sharp';
import { v7 as uuidv7, version } from 'uuid';
import { photosAsData } from '../report/photosAsData';
import { anOpenVisit } from '../test/anOpenVisit';
import { aPhoto } from '../test/aPhoto';
import { makeStaff, openTestShop, type Refusal, type Staff, type TestShop } from '../test/testShop';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'photos');
});
afterAll(() => shop.close());

let number = 0;
const aVisit = () => anOpenVisit(staff, String((number += 1)));

const put = (logId: string, photoId: string, bytes: Buffer, type = 'image/jpeg') =>
  staff.technician
    .put(`/api/photos/${photoId}?logId=${logId}`)
    .set('Content-Type', type)
    .send(bytes);

const noPicture = 'This is no JPEG, PNG or WebP picture that can be drawn: take it again.';

/** Noise does not pack, so half of its bytes are half of the picture. */
const noisy = () =>
  sharp({
    create: {
      ...{ width: 400, height: 300, channels: 3, background: '#777' },
      noise: { type: 'gaussian', mean: 128, sigma: 40 },
    },
  })
    .jpeg()
    .toBuffer();

describe('a photo is drawn before it is kept', () => {
  it.each([
    [
      'junk behind a good beginning',
      () => Promise.resolve(Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3])),
    ],
    ['the first half of one', async () => (await noisy()).subarray(0, 9_000)],
    ['one of another kind', () => aPhoto(1, 'png')],
    ['a drawing that is text', () => Promise.resolve(Buffer.from('<svg width="1" height="1"/>'))],
  ])('%s is refused in words', async (_, made) => {
    const { header } = await aVisit();
    const answer = await put(header.id, uuidv7(), await made()).expect(422);
    expect((answer.body as Refusal).fields).toEqual([{ field: 'photo', message: noPicture }]);
  });

  it('a small file of a hundred million points is refused, and takes no room for them', async () => {
    const { header } = await aVisit();
    const bomb = await sharp({
      create: { width: 10_000, height: 10_000, channels: 3, background: '#333' },
    })
      .png({ compressionLevel: 9 })
      .toBuffer();
    expect(bomb.length).toBeLessThan(500_000);
    const before = process.memoryUsage().rss;
    const answer = await put(header.id, uuidv7(), bomb, 'image/png').expect(422);
    expect((answer.body as Refusal).message).toContain('10000 × 10000 points');
    expect(process.memoryUsage().rss - before).toBeLessThan(100_000_000);
  });

  it.each(['jpeg', 'png', 'webp'] as const)('a good %s is kept as it was sent', async (kind) => {
    const { header } = await aVisit();
    const [id, bytes] = [uuidv7(), await aPhoto(7, kind)];
    await put(header.id, id, bytes, `image/${kind}`).expect(201);
    const served = await staff.viewer.get(`/api/photos/${id}`).expect(200);
    expect(Buffer.compare(served.body as Buffer, bytes)).toBe(0);
  });
});

describe('a photo is named by what it shows', () => {
  it('as anybody finds it with SHA-256, and is refused under the name of another', async () => {
    const { header } = await aVisit();
    const [bytes, other] = [await aPhoto(8), await aPhoto(9)];
    const id = photoIdOf(header.id, bytes);
    expect(version(id)).toBe(8);
    const hex = createHash('sha256').update(`${header.id}\n`).update(bytes).digest('hex');
    // The version and the variant stand in six of its bits.
    const bare = id.replaceAll('-', '');
    expect([bare.slice(0, 12), bare.slice(13, 16), bare.slice(17)]).toEqual([
      hex.slice(0, 12),
      hex.slice(13, 16),
      hex.slice(17, 32),
    ]);
    const refused = await put(header.id, id, other).expect(422);
    expect((refused.body as Refusal).fields?.[0]?.field).toBe('id');
    await put(header.id, id, bytes).expect(201);
    await put(header.id, id, bytes).expect(200);
  });
});

describe('a photo that was damaged in the database', () => {
  const verified = () => {
    const script = join(__dirname, '../../../scripts/verify.mjs');
    const done = spawnSync(process.execPath, [script], {
      env: { ...process.env, DATABASE_URL: shop.ownerUrl },
      encoding: 'utf8',
    });
    return { status: done.status, said: done.stdout + done.stderr };
  };

  it('is left out of a report that says so, and verify names it', async () => {
    const { header, said, send } = await aVisit();
    const photos = [];
    for (const shade of [2, 3, 4]) {
      const bytes = await aPhoto(shade, 'webp');
      const id = photoIdOf(header.id, bytes);
      await put(header.id, id, bytes, 'image/webp').expect(201);
      photos.push(id);
    }
    const [whole, junk, gone] = photos;
    const fact = said('See the photos', { photos });
    await send([fact], staff.technician).expect(200);
    expect(verified()).toMatchObject({ status: 0 });
    const client = new pg.Client({ connectionString: shop.ownerUrl });
    await client.connect();
    await client.query('alter table blobs disable trigger user');
    await client.query(`update blobs set bytes = '\\xffd8ff00' where id = $1`, [junk]);
    await client.query('delete from blobs where id = $1', [gone]);
    await client.end();
    const data = await photosAsData(shop.database.db, staff.shopId, header.id, [fact]);
    expect([...data.keys()]).toEqual([whole]);
    const pdf = await staff.viewer.get(`/api/visits/${header.id}/report.pdf`).expect(200);
    expect((pdf.body as Buffer).subarray(0, 4).toString()).toBe('%PDF');
    const found = verified();
    expect(found.status).toBe(2);
    expect(found.said).toContain(`photo ${junk} is not the one that was sent`);
    expect(found.said).toContain(`photo ${gone} is gone`);
    expect(found.said).not.toContain(whole);
  });
});
