import ipaddr, { type IPv6 } from 'ipaddr.js';

/** Sixteen-bit parts of an IPv6 address that name one household's network: whoever has one address of it has all. */
const NETWORK_PARTS = 4;

/** An address as tries are counted by it: an IPv6 one by its network of 64 bits. */
export function addressKey(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const parsed = ipaddr.process(address);
  return parsed.kind() === 'ipv4'
    ? parsed.toString()
    : (parsed as IPv6).parts
        .slice(0, NETWORK_PARTS)
        .map((part) => part.toString(16))
        .join(':');
}
