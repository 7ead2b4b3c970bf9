import argon2 from 'argon2';
import { createHash } from 'node:crypto';

/* argon2id with the second set of parameters that RFC 9106 recommends for less memory, cut to 19 MiB as
   common guidance for interactive sign-in does. */
const OPTIONS = {
  type: argon2.argon2id,
  memoryCost: 19_456,
  timeCost: 2,
  parallelism: 1,
} as const;
/** As RFC 9106 recommends. */
const SALT_BYTES = 16;

/** Hash of a password, with its salt and parameters in the text. */
export function hashPassword(password: string): Promise<string> {
  return argon2.hash(password, OPTIONS);
}

/**
 * What a short secret is kept as where several are compared at once: one hash answers for all that have the salt, and
 * guessing costs as much as with a password.
 *
 * @param salt whose it is; nobody else's has it
 */
export async function markOfSecret(secret: string, salt: string): Promise<string> {
  const bytes = createHash('sha256').update(salt).digest().subarray(0, SALT_BYTES);
  const mark = await argon2.hash(secret, { ...OPTIONS, raw: true, salt: bytes });
  return mark.toString('hex');
}

let nobody: Promise<string> | null = null;

/**
 * Whether a password fits a hash. Without a hash the same work is done and the answer is no, so that the
 * time taken does not tell whether a name exists.
 */
export async function passwordFits(hash: string | null, password: string): Promise<boolean> {
  nobody ??= hashPassword('nobody has this');
  const fits = await argon2.verify(hash ?? (await nobody), password);
  return hash !== null && fits;
}
