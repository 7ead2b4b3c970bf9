import { createHmac } from 'node:crypto';

/* Letters and digits that are not taken for each other on paper. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';

/**
 * The code that the first visit to an empty installation is asked for, such as `K7QP-3MWD`. All servers of an
 * installation find the same one; it is worth nothing once there is a first account.
 *
 * @param secret the installation's own
 */
export function setUpCodeOf(secret: string): string {
  const bytes = createHmac('sha256', secret).update('first account').digest();
  const code = Array.from(bytes.subarray(0, 8), (byte) => LETTERS[byte % LETTERS.length]).join('');
  return `${code.slice(0, 4)}-${code.slice(4)}`;
}
