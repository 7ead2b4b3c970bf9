import argon2 from 'argon2';

/* argon2id with the second set of parameters that RFC 9106 recommends for less memory, cut to 19 MiB as
   common guidance for interactive sign-in does. */
const OPTIONS = {
  type: argon2.argon2id,
  memoryCost: 19_456,
  timeCost: 2,
  parallelism: 1,
} as const;

/** Hash of a password, with its salt and parameters in the text. */
export function hashPassword(password: string): Promise<string> {
  return argon2.hash(password, OPTIONS);
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
