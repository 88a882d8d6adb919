import { createHash } from 'node:crypto';
import { entropyToMnemonic } from '@scure/bip39';
import { wordlist } from '@scure/bip39/wordlists/english.js';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { didOfKey, fingerprintWords } from '../src/index.ts';

const keys = fc.uint8Array({ minLength: 32, maxLength: 32 });

test('a fingerprint is the beginning of the digest in the words of BIP 39 (property)', () => {
  fc.assert(
    fc.property(keys, (key) => {
      const digest = createHash('sha256').update(key).digest();
      // BIP 39 writes 128 bits as eleven words and a twelfth with a checksum: the first six are of the first 66 bits.
      const words = entropyToMnemonic(digest.subarray(0, 16), wordlist).split(' ').slice(0, 6);
      expect(fingerprintWords(didOfKey(key))).toEqual(words);
    }),
  );
});

test('what is no key has none', () => {
  for (const did of ['', 'did:key:z', 'did:web:example.org', 'did:key:z6Mk'])
    expect(fingerprintWords(did)).toBeNull();
});
