import { lookup as resolve, type LookupAddress } from 'node:dns';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

/** A message may not go where this server alone can reach: to itself, its network, or the machine that lends it its disk. */
export class PrivateAddressError extends Error {}

/** Whether an address is one of the public internet (RFC 6890 lists those that are not). */
export const isPublic = (address: string): boolean => ipaddr.process(address).range() === 'unicast';

/**
 * Looks a name up, and refuses it where any of its addresses is not public. Given to the connection itself, so that the address
 * that was looked at is the one that is connected to, whatever the name answers a moment later.
 */
export const lookupPublic: LookupFunction = (hostname, options, callback) => {
  resolve(hostname, { ...options, all: true }, (error, found) => {
    const addresses = found as LookupAddress[];
    if (error) return callback(error, '', 0);
    const hidden = addresses.find(({ address }) => !isPublic(address));
    if (hidden) return callback(new PrivateAddressError(`${hostname} is not on the public internet`), '', 0);
    if (options.all) callback(null, addresses);
    else callback(null, addresses[0]!.address, addresses[0]!.family);
  });
};
