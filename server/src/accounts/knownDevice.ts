import { parse } from 'cookie';
import { sign, unsign } from 'cookie-signature';
import type { Request, Response } from 'express';
import { createHash, randomUUID } from 'node:crypto';

const COOKIE = 'kb.device';
const YEAR_MS = 365 * 86_400_000;
/** A shop's phone goes from hand to hand; more names than these are forgotten, the oldest first. */
const MOST_NAMES = 8;

/** Of a name only this is in the cookie: who borrows the phone does not read who used it. */
const marked = (signInName: string): string =>
  createHash('sha256').update(signInName.trim().toLowerCase()).digest('hex').slice(0, 16);

/**
 * Devices on which somebody has signed in before, by a signed cookie. Wrong tries elsewhere do not lock them out of their
 * own name; a device is known for the names that were signed in on it, and for no others.
 */
export class KnownDevice {
  /**
   * @param secret signs the cookie
   * @param secure sent over HTTPS alone
   */
  constructor(
    private readonly secret: string,
    private readonly secure: boolean,
  ) {}

  /** The device's id where this name was signed in on it; null where it was not. */
  idFor(request: Request, signInName: string): string | null {
    const known = this.read(request);
    return known?.names.includes(marked(signInName)) ? known.id : null;
  }

  /** Remembers that a name was signed in on this device. */
  remember(request: Request, response: Response, signInName: string): void {
    // Over plain HTTP it would not come back.
    if (this.secure && !request.secure) return;
    const known = this.read(request) ?? { id: randomUUID(), names: [] };
    const name = marked(signInName);
    const names = [name, ...known.names.filter((each) => each !== name)].slice(0, MOST_NAMES);
    response.cookie(COOKIE, sign(`${known.id}.${names.join('-')}`, this.secret), {
      httpOnly: true,
      sameSite: 'lax',
      secure: this.secure,
      maxAge: YEAR_MS,
      path: '/api',
    });
  }

  private read(request: Request): { id: string; names: string[] } | null {
    const value = parse(request.headers.cookie ?? '')[COOKIE];
    const plain = value ? unsign(value, this.secret) : false;
    if (plain === false) return null;
    const [id = '', names = ''] = plain.split('.');
    return { id, names: names.split('-').filter(Boolean) };
  }
}
