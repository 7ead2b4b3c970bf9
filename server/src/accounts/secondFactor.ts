import type { FactorOffer } from '@keen-bleed/contract';
import { and, eq, lt } from 'drizzle-orm';
import { createHash, randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import QRCode from 'qrcode';
import type { Db } from '../db/database';
import type { Accounts } from './accounts';
import { secondFactors } from '../db/schema';
import { markOfSecret } from './password';

/* Codes of RFC 6238 as every app that makes codes knows them: SHA-1, six digits, thirty seconds. */
const PERIOD_S = 30;
/** A phone's clock may be off by so many steps. */
const WINDOW = 1;
const SPARE_CODES = 8;
/** Of sixteen letters each: 40 bits. */
const SPARE_LETTERS = 10;

interface Whose {
  shopId: string;
  personId: string;
}

/** Where factors are kept, and how. */
type Kept = Pick<Accounts, 'db' | 'seal'>;

const totpOf = (secret: string, label = '') =>
  new TOTP({
    issuer: 'Keen Bleed',
    label,
    algorithm: 'SHA1',
    digits: 6,
    period: PERIOD_S,
    secret: Secret.fromBase32(secret),
  });

/** What the secret of somebody's codes is sealed for. */
const placeOf = ({ shopId, personId }: Whose) => `second factor of ${personId} of ${shopId}`;

const ownRow = ({ shopId, personId }: Whose) =>
  and(eq(secondFactors.shopId, shopId), eq(secondFactors.personId, personId));

/** A spare code without what makes no difference: how it was typed. */
const bare = (code: string) => code.toLowerCase().replace(/[^a-z0-9]/g, '');

/** A spare code as it is kept: forty bits would be guessed from a quick hash within minutes. */
const markOf = (code: string, whose: Whose): Promise<string> =>
  markOfSecret(bare(code), `spare codes of ${placeOf(whose)}`);

/** As a version before this kept it, by a quick hash; those are taken until they are used up. */
const olderMarkOf = (code: string) => createHash('sha256').update(bare(code)).digest('hex');

/**
 * Offers a second factor: a secret for an app that makes codes. It counts once a first code has confirmed it; offered
 * again before that, the earlier one is forgotten.
 */
export async function offerFactor(
  { db, seal }: Kept,
  { shopId, personId }: Whose,
  label: string,
): Promise<FactorOffer> {
  const whose = { shopId, personId };
  const secret = new Secret({ size: 20 }).base32;
  const fresh = {
    ...{ confirmedAt: null, lastStep: 0, spare: [] },
    secret: seal.close(secret, placeOf(whose)),
  };
  await db
    .insert(secondFactors)
    .values({ ...whose, ...fresh })
    .onConflictDoUpdate({
      target: [secondFactors.shopId, secondFactors.personId],
      set: fresh,
    });
  const uri = totpOf(secret, label).toString();
  const { modules } = QRCode.create(uri, { errorCorrectionLevel: 'M' });
  const rows = Array.from({ length: modules.size }, (_, y) =>
    Array.from({ length: modules.size }, (_, x) => (modules.get(y, x) ? '1' : '0')).join(''),
  );
  return { secret, uri, rows };
}

/** Whether a second factor is asked for at somebody's sign-in. */
export async function hasFactor(db: Db, whose: Whose): Promise<boolean> {
  const [row] = await db
    .select({ confirmedAt: secondFactors.confirmedAt })
    .from(secondFactors)
    .where(ownRow(whose));
  return row != null && row.confirmedAt !== null;
}

/**
 * Takes a code: one of the app's, or a spare one. Each is good once.
 *
 * @param nowMs the moment codes are compared at
 */
export async function codeFits(
  { db, seal }: Kept,
  whose: Whose,
  code: string,
  nowMs: number = Date.now(),
): Promise<boolean> {
  const [row] = await db.select().from(secondFactors).where(ownRow(whose));
  if (!row) return false;
  const digits = code.replace(/\s/g, '');
  // Where the installation's secret was lost it does not open: a spare code still lets in.
  const secret = seal.open(row.secret, placeOf(whose));
  const delta =
    secret !== null && /^\d{6}$/.test(digits)
      ? totpOf(secret).validate({ token: digits, window: WINDOW, timestamp: nowMs })
      : null;
  if (secret !== null && delta !== null) {
    const step = Math.floor(nowMs / 1000 / PERIOD_S) + delta;
    // Sent twice at one moment, it is taken once.
    const taken = await db
      .update(secondFactors)
      // One that was kept plain, by a version before this, is sealed from now on.
      .set({ lastStep: step, secret: seal.close(secret, placeOf(whose)) })
      .where(and(ownRow(whose), lt(secondFactors.lastStep, step)))
      .returning({ step: secondFactors.lastStep });
    return taken.length > 0;
  }
  if (row.confirmedAt === null || bare(code).length !== SPARE_LETTERS) return false;
  const marks = [await markOf(code, whose), olderMarkOf(code)];
  const mark = marks.find((each) => row.spare.includes(each));
  if (mark === undefined) return false;
  return db.transaction(async (tx) => {
    const [now] = await tx.select().from(secondFactors).where(ownRow(whose)).for('update');
    if (!now?.spare.includes(mark)) return false;
    const left = now.spare.filter((each) => each !== mark);
    await tx.update(secondFactors).set({ spare: left }).where(ownRow(whose));
    return true;
  });
}

/** Spare codes, told once, and as they are kept. */
export interface SpareCodes {
  codes: string[];
  marks: string[];
}

/** Makes somebody's spare codes. It takes a while, so that guessing them does too. */
export async function makeSpareCodes(whose: Whose): Promise<SpareCodes> {
  const codes = Array.from({ length: SPARE_CODES }, () => {
    const hex = randomBytes(SPARE_LETTERS / 2).toString('hex');
    return `${hex.slice(0, SPARE_LETTERS / 2)}-${hex.slice(SPARE_LETTERS / 2)}`;
  });
  return { codes, marks: await Promise.all(codes.map((code) => markOf(code, whose))) };
}

/** Makes an offered factor count. */
export async function confirmFactor(
  db: Pick<Db, 'update'>,
  whose: Whose,
  { marks }: SpareCodes,
): Promise<void> {
  await db
    .update(secondFactors)
    .set({ confirmedAt: new Date(), spare: marks })
    .where(ownRow(whose));
}

/** Takes a second factor away. */
export async function dropFactor(db: Pick<Db, 'delete'>, whose: Whose): Promise<void> {
  await db.delete(secondFactors).where(ownRow(whose));
}
