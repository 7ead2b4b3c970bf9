import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

/** AES-256 in GCM (NIST SP 800-38D), with a nonce of 96 bits and a tag of 128. */
const CIPHER = 'aes-256-gcm';
const KEY_BYTES = 32;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;
/** How what is sealed begins; what was kept before is plain and does not. */
const SEALED = 'sealed:';

/**
 * Seals what the database keeps and must not give away: whoever reads a stolen backup cannot read it without the
 * installation's secret.
 */
export class Seal {
  private readonly key: Buffer;

  /** @param secret the installation's; the key follows from it (HKDF, RFC 5869) and serves nothing else */
  constructor(secret: string) {
    this.key = Buffer.from(hkdfSync('sha256', secret, '', 'keen-bleed seal', KEY_BYTES));
  }

  /**
   * Seals a text for one place: moved to another it does not open.
   *
   * @param place whose it is, such as shop and person
   */
  close(text: string, place: string): string {
    const nonce = randomBytes(NONCE_BYTES);
    const cipher = createCipheriv(CIPHER, this.key, nonce).setAAD(Buffer.from(place));
    const inside = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
    return SEALED + Buffer.concat([nonce, cipher.getAuthTag(), inside]).toString('base64');
  }

  /** A text as it was before it was sealed; as it is where it never was; null where another secret or place sealed it. */
  open(kept: string, place: string): string | null {
    if (!kept.startsWith(SEALED)) return kept;
    const bytes = Buffer.from(kept.slice(SEALED.length), 'base64');
    const nonce = bytes.subarray(0, NONCE_BYTES);
    const tag = bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES);
    try {
      const cipher = createDecipheriv(CIPHER, this.key, nonce, { authTagLength: TAG_BYTES });
      cipher.setAAD(Buffer.from(place)).setAuthTag(tag);
      const inside = bytes.subarray(NONCE_BYTES + TAG_BYTES);
      return Buffer.concat([cipher.update(inside), cipher.final()]).toString('utf8');
    } catch {
      return null;
    }
  }
}
