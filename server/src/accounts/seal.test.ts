import { createHmac, webcrypto } from 'node:crypto';
import { Seal } from './seal';

const SECRET = 'an installation’s secret';
const PLACE = 'second factor of somebody';

describe('what is sealed', () => {
  it('opens in its place by its secret, and is another each time', () => {
    const seal = new Seal(SECRET);
    const kept = seal.close('GEZDGNBVGY3TQOJQ', PLACE);
    expect(kept).not.toContain('GEZDGNBV');
    expect(seal.open(kept, PLACE)).toBe('GEZDGNBVGY3TQOJQ');
    expect(new Seal(SECRET).open(kept, PLACE)).toBe('GEZDGNBVGY3TQOJQ');
    expect(seal.close('GEZDGNBVGY3TQOJQ', PLACE)).not.toBe(kept);
  });

  it('opens nowhere else, by no other secret, and not where a letter was changed', () => {
    const seal = new Seal(SECRET);
    const kept = seal.close('GEZDGNBVGY3TQOJQ', PLACE);
    expect(seal.open(kept, 'second factor of another')).toBeNull();
    expect(new Seal('another secret').open(kept, PLACE)).toBeNull();
    const bytes = Buffer.from(kept.slice('sealed:'.length), 'base64');
    for (const at of [0, 12, bytes.length - 1]) {
      const changed = Buffer.from(bytes);
      changed[at]! ^= 1;
      expect(seal.open(`sealed:${changed.toString('base64')}`, PLACE)).toBeNull();
    }
    expect(seal.open('sealed:', PLACE)).toBeNull();
    expect(seal.open('sealed:AAAA', PLACE)).toBeNull();
  });

  it('is what it is where it was never sealed', () => {
    expect(new Seal(SECRET).open('GEZDGNBVGY3TQOJQ', PLACE)).toBe('GEZDGNBVGY3TQOJQ');
  });

  it('is read by the Web Cryptography API with a key worked out from RFC 5869’s text', async () => {
    // HKDF-SHA-256 without a salt: extract with 32 zero bytes, then one step of expand.
    const hmac = (key: Buffer, data: Buffer) => createHmac('sha256', key).update(data).digest();
    const extracted = hmac(Buffer.alloc(32), Buffer.from(SECRET));
    const key = hmac(extracted, Buffer.concat([Buffer.from('keen-bleed seal'), Buffer.from([1])]));
    const kept = new Seal(SECRET).close('read me', PLACE);
    const bytes = Buffer.from(kept.slice('sealed:'.length), 'base64');
    const [nonce, tag, inside] = [
      bytes.subarray(0, 12),
      bytes.subarray(12, 28),
      bytes.subarray(28),
    ];
    const opened = await webcrypto.subtle.decrypt(
      { name: 'AES-GCM', iv: nonce, additionalData: Buffer.from(PLACE), tagLength: 128 },
      await webcrypto.subtle.importKey('raw', key, 'AES-GCM', false, ['decrypt']),
      // The API wants the tag behind what it vouches for.
      Buffer.concat([inside, tag]),
    );
    expect(Buffer.from(opened).toString('utf8')).toBe('read me');
  });
});
