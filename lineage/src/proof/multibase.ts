import { sha256 } from '@noble/hashes/sha2.js';
import { hexToBytes } from '@noble/hashes/utils.js';
import { base58 } from '@scure/base';

/*
 * Keys, digests and signatures as text: multibase base58-btc, "z" before the digits. Multicodec prefixes from the multicodec
 * table: Ed25519 public key 0xed (as a varint ed 01); multihash sha2-256 0x12, 32 bytes.
 */

const ED25519_KEY = [0xed, 0x01] as const;
const SHA2_256 = [0x12, 0x20] as const;
const KEY_BYTES = 32;
const DID_KEY = 'did:key:';

export const toMultibase = (bytes: Uint8Array): string => `z${base58.encode(bytes)}`;

/** @returns null where the text is no multibase base58-btc */
export function fromMultibase(text: string): Uint8Array | null {
  if (!text.startsWith('z')) return null;
  try {
    return base58.decode(text.slice(1));
  } catch {
    return null;
  }
}

/** The `did:key` of an Ed25519 public key. @param publicKey - 32 bytes */
export function didOfKey(publicKey: Uint8Array): string {
  return DID_KEY + toMultibase(Uint8Array.from([...ED25519_KEY, ...publicKey]));
}

/** The public key that a `did:key` stands for. @returns 32 bytes; null where it is no `did:key` of an Ed25519 key */
export function keyOfDid(did: string): Uint8Array | null {
  if (!did.startsWith(DID_KEY)) return null;
  const bytes = fromMultibase(did.slice(DID_KEY.length));
  if (bytes?.length !== KEY_BYTES + ED25519_KEY.length) return null;
  return ED25519_KEY.every((byte, i) => bytes[i] === byte) ? bytes.slice(ED25519_KEY.length) : null;
}

/** The one verification method of a `did:key`: its key, named once more after `#`. */
export const methodOfDid = (did: string): string => `${did}#${did.slice(DID_KEY.length)}`;

/** The digest of a file, as a document names it: a sha2-256 multihash. @param bytes - the file's */
export const digestMultibase = (bytes: Uint8Array): string => multihash(sha256(bytes));

/** The same, of a digest that was made already. @param digest - SHA-256, 64 hexadecimal digits */
export const hexToDigestMultibase = (digest: string): string => multihash(hexToBytes(digest));

const multihash = (digest: Uint8Array): string => toMultibase(Uint8Array.from([...SHA2_256, ...digest]));
