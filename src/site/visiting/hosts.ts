// Which hosts may be asked: a private or loopback address only where the start is one.

import dns from 'node:dns';
import { BlockList, isIP, type LookupFunction } from 'node:net';

/** Loopback, private, link-local, shared and reserved ranges (IANA special-purpose address registries). */
const PRIVATE = new BlockList();
for (const [address, prefix] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['224.0.0.0', 3],
] as const)
  PRIVATE.addSubnet(address, prefix, 'ipv4');
for (const [address, prefix] of [
  ['::', 127],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
] as const)
  PRIVATE.addSubnet(address, prefix, 'ipv6');

export function isPrivate(address: string): boolean {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  if (mapped !== undefined) return isPrivate(mapped);
  const family = isIP(address);
  return family === 4 ? PRIVATE.check(address, 'ipv4') : family === 6 && PRIVATE.check(address, 'ipv6');
}

/** Whether the host of an address is, or leads to, a machine of the house. */
export async function leadsInside(address: string): Promise<boolean> {
  const host = hostOf(address);
  if (isIP(host) !== 0) return isPrivate(host);
  const found = await dns.promises.lookup(host, { all: true }).catch(() => []);
  return found.some((one) => isPrivate(one.address));
}

export function hostOf(address: string): string {
  return new URL(address).hostname.replace(/^\[|\]$/g, '');
}

export class PrivateHost extends Error {}

/** Looks a name up for a connection, so that what was checked is what is asked. */
export const publicLookup: LookupFunction = (host, options, done) => {
  dns.lookup(host, { ...options, all: true }, (error, found) => {
    if (error !== null) return done(error, []);
    const inside = found.find((one) => isPrivate(one.address));
    if (inside !== undefined) return done(new PrivateHost(host), []);
    if (options.all === true) return done(null, found);
    return done(null, found[0]?.address ?? '', found[0]?.family ?? 4);
  });
};
