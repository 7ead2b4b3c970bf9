import type { FactorOffer, Me, SpareCodes } from '@keen-bleed/contract';
import { createHash, createHmac } from 'node:crypto';
import pg from 'pg';
import request from 'supertest';
import { makeStaff, openTestShop, testPassword, type Staff, type TestShop } from '../test/testShop';
import { Seal } from './seal';

let shop: TestShop;
let owner: pg.Client;
beforeAll(async () => {
  shop = await openTestShop();
  owner = new pg.Client({ connectionString: shop.ownerUrl });
  await owner.connect();
});
afterAll(async () => {
  await owner.end();
  await shop.close();
});

/** The code of RFC 6238 (SHA-1, 30 s, 6 digits) for a moment, worked out from the RFC's text alone. */
function totp(base32: string, atMs: number): string {
  const bits = [...base32]
    .map((letter) =>
      'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(letter).toString(2).padStart(5, '0'),
    )
    .join('');
  const key = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => parseInt(byte, 2)));
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(atMs / 30_000)));
  const mac = createHmac('sha1', key).update(counter).digest();
  const at = mac[19]! & 15;
  return String((mac.readUInt32BE(at) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}

/** Signs in with the password alone. */
const tryToEnter = (signInName: string) =>
  request(shop.app).post('/api/sign-in').send({ signInName, password: testPassword }).expect(200);

describe('a second factor', () => {
  it('reckons as the RFC’s own example does', () => {
    // RFC 6238, appendix B: secret 12345678901234567890, at 59 s 94287082, of which six digits are 287082.
    expect(totp('GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ', 59_000)).toBe('287082');
  });

  it('is turned on with a password and a first code, asked for at every sign-in, and each code is good once', async () => {
    const made = await makeStaff(shop, 'totp');
    const { lead, names } = made;
    await lead.post('/api/me/second-factor').send({ password: 'not it' }).expect(422);
    const offer = (
      await lead.post('/api/me/second-factor').send({ password: testPassword }).expect(200)
    ).body as FactorOffer;
    expect(offer.uri).toContain('otpauth://totp/Keen%20Bleed:totp-lead');
    expect(offer.rows).toHaveLength(offer.rows[0]!.length);
    // Until it is confirmed nobody is asked for it.
    await tryToEnter(names.lead);
    await lead.post('/api/me/second-factor/confirm').send({ code: '000000' }).expect(422);
    const now = Date.now();
    const code = totp(offer.secret, now);
    const { spare } = (await lead.post('/api/me/second-factor/confirm').send({ code }).expect(200))
      .body as SpareCodes;
    expect(spare).toHaveLength(8);
    // Ten letters of sixteen: 40 bits each, in two halves to be read aloud.
    for (const each of spare) expect(each).toMatch(/^[0-9a-f]{5}-[0-9a-f]{5}$/);
    expect(new Set(spare).size).toBe(8);
    const tryIt = (more: object) =>
      request(shop.app)
        .post('/api/sign-in')
        .send({ signInName: names.lead, password: testPassword, ...more });
    expect((await tryIt({}).expect(401)).body).toMatchObject({ code: 'code-wanted' });
    // A wrong password tells nothing of the factor.
    expect((await tryIt({ password: 'wrong', code }).expect(401)).body).toMatchObject({
      code: 'wrong-sign-in',
    });
    // The code that confirmed it was used; the next one is still good, once.
    await tryIt({ code }).expect(401);
    const next = totp(offer.secret, now + 30_000);
    await tryIt({ code: `${next}0` }).expect(401);
    await tryIt({ code: `0${next}` }).expect(401);
    await tryIt({ code: `${next.slice(0, 3)} ${next.slice(3)}` }).expect(200);
    await tryIt({ code: next }).expect(401);
    // An old one is not.
    await tryIt({ code: totp(offer.secret, now - 120_000) }).expect(401);
    await tryIt({ code: spare[0]!.toUpperCase() }).expect(200);
    await tryIt({ code: spare[0] }).expect(401);
    const twice = await Promise.all([tryIt({ code: spare[1] }), tryIt({ code: spare[1] })]);
    expect(twice.map(({ status }) => status).sort()).toEqual([200, 401]);
    expect(((await lead.get('/api/me')).body as Me).secondFactor).toBe(true);
    // It is turned off with the password alone, by its owner; a lead takes it from somebody else.
    await lead.post('/api/me/second-factor').send({ password: testPassword }).expect(422);
    await lead.patch(`/api/people/${made.ids.lead}`).send({ secondFactor: false }).expect(422);
    await made.viewer
      .patch(`/api/people/${made.ids.lead}`)
      .send({ secondFactor: false })
      .expect(403);
    await lead.post('/api/me/second-factor/off').send({ password: testPassword }).expect(204);
    await tryIt({}).expect(200);
  });

  it('is taken by another lead from somebody who lost it', async () => {
    const made = await makeStaff(shop, 'lost');
    const offer = (
      await made.viewer.post('/api/me/second-factor').send({ password: testPassword }).expect(200)
    ).body as FactorOffer;
    await made.viewer
      .post('/api/me/second-factor/confirm')
      .send({ code: totp(offer.secret, Date.now()) })
      .expect(200);
    await made.lead
      .patch(`/api/people/${made.ids.viewer}`)
      .send({ secondFactor: false })
      .expect(200);
    await tryToEnter(made.names.viewer);
  });

  it('is kept sealed: the database alone makes no codes, and where the secret is lost a spare one lets in', async () => {
    const made = await makeStaff(shop, 'sealed');
    const { secret } = (
      await made.lead.post('/api/me/second-factor').send({ password: testPassword }).expect(200)
    ).body as FactorOffer;
    const now = Date.now();
    const { spare } = (
      await made.lead
        .post('/api/me/second-factor/confirm')
        .send({ code: totp(secret, now) })
        .expect(200)
    ).body as SpareCodes;
    const kept = async () =>
      (
        await owner.query<{ row: string; secret: string }>(
          `select f::text as row, secret from second_factors f where person_id = $1`,
          [made.ids.lead],
        )
      ).rows[0]!;
    expect((await kept()).row).not.toContain(secret);
    // Nor is a spare code kept by anything quick to guess from.
    const quick = (code: string) =>
      createHash('sha256').update(code.replace('-', '')).digest('hex');
    for (const code of spare) {
      expect((await kept()).row).not.toContain(code.replace('-', ''));
      expect((await kept()).row).not.toContain(quick(code));
    }
    const tryIt = (code: string | undefined) =>
      request(shop.app)
        .post('/api/sign-in')
        .send({ signInName: made.names.lead, password: testPassword, code });
    // As a version before this kept it; it is sealed with its next use.
    await owner.query('update second_factors set secret = $1 where person_id = $2', [
      secret,
      made.ids.lead,
    ]);
    await tryIt(totp(secret, now + 30_000)).expect(200);
    const sealed = await kept();
    expect(sealed.row).not.toContain(secret);
    // Somebody else's, put in this place, opens nothing; neither does another installation's.
    await owner.query('update second_factors set secret = $1, last_step = 0 where person_id = $2', [
      new Seal('another installation').close(secret, 'elsewhere'),
      made.ids.lead,
    ]);
    await tryIt(totp(secret, Date.now())).expect(401);
    await tryIt(spare[0]).expect(200);
    // As a version before this kept them: each is still good, once.
    await owner.query('update second_factors set spare = $1 where person_id = $2', [
      JSON.stringify([quick(spare[1]!), quick(spare[2]!)]),
      made.ids.lead,
    ]);
    await tryIt(spare[1]).expect(200);
    await tryIt(spare[1]).expect(401);
    await tryIt(spare[2]).expect(200);
    await tryIt(spare[3]).expect(401);
  });

  it('has spare codes that are one person’s: another’s mark, put in its place, lets nobody in', async () => {
    const [one, other] = [await makeStaff(shop, 'mine'), await makeStaff(shop, 'theirs')];
    const spareOf = async ({ lead }: Staff) => {
      const { secret } = (
        await lead.post('/api/me/second-factor').send({ password: testPassword }).expect(200)
      ).body as FactorOffer;
      const code = totp(secret, Date.now());
      return (
        (await lead.post('/api/me/second-factor/confirm').send({ code }).expect(200))
          .body as SpareCodes
      ).spare;
    };
    const [, theirs] = [await spareOf(one), await spareOf(other)];
    await owner.query(
      `update second_factors set spare = (select spare from second_factors where person_id = $1)
       where person_id = $2`,
      [other.ids.lead, one.ids.lead],
    );
    const answer = await request(shop.app)
      .post('/api/sign-in')
      .send({ signInName: one.names.lead, password: testPassword, code: theirs[0] });
    expect(answer.status).toBe(401);
  });
});
