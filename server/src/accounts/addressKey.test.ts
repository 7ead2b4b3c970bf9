import { addressKey } from './addressKey';

describe('what tries are counted by', () => {
  it('is an IPv4 address, also where it comes in IPv6 form', () => {
    expect(addressKey('203.0.113.7')).toBe('203.0.113.7');
    expect(addressKey('::ffff:203.0.113.7')).toBe('203.0.113.7');
  });

  it('is the first 64 bits of an IPv6 address: a household has all of them (RFC 6177)', () => {
    const one = addressKey('2001:db8:12:34::1');
    expect(one).toBe('2001:db8:12:34');
    expect(addressKey('2001:0db8:0012:0034:ffff:1:2:3')).toBe(one);
    expect(addressKey('2001:db8:12:35::1')).not.toBe(one);
    expect(addressKey('::1')).toBe('0:0:0:0');
  });

  it('is what is no address as it came', () => {
    expect(addressKey('')).toBe('');
    expect(addressKey('nonsense')).toBe('nonsense');
  });
});
