import { sha256 } from '@noble/hashes/sha2.js';
import { wordlist } from '@scure/bip39/wordlists/english.js';
import { keyOfDid } from './multibase.ts';

/** Words of 11 bits each: 66 bits are far more than anybody can search for a key that reads alike. */
const WORDS = 6;
const BITS = 11;

/**
 * A key's fingerprint as words that can be read out: the first 66 bits of the SHA-256 digest of the public key, each 11 bits
 * by the English word list of BIP 39.
 *
 * @returns null where it is no `did:key` of an Ed25519 key
 */
export function fingerprintWords(did: string): string[] | null {
  const key = keyOfDid(did);
  if (!key) return null;
  const bits = [...sha256(key)].map((byte) => byte.toString(2).padStart(8, '0')).join('');
  return Array.from(
    { length: WORDS },
    (_, i) => wordlist[parseInt(bits.slice(i * BITS, (i + 1) * BITS), 2)]!,
  );
}
