import { hexToBytes } from '@noble/curves/utils.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import { describe, expect, test } from 'vitest';
import { canonicalHash, didOfKey, digestMultibase, keyOfDid, sign, signatureFault } from '../src/index.ts';

/* Held against the test vectors of the standards. */

/** The Alumni Credential of "Data Integrity EdDSA Cryptosuites v1.0" (W3C Recommendation, 15 May 2025), appendix B. */
const ALUMNI = {
  '@context': ['https://www.w3.org/ns/credentials/v2', 'https://www.w3.org/ns/credentials/examples/v2'],
  id: 'urn:uuid:58172aac-d8ba-11ed-83dd-0b3aef56cc33',
  type: ['VerifiableCredential', 'AlumniCredential'],
  name: 'Alumni Credential',
  description: 'A minimum viable example of an Alumni Credential.',
  issuer: 'https://vc.example/issuers/5678',
  validFrom: '2023-01-01T00:00:00Z',
  credentialSubject: { id: 'did:example:abcdefgh', alumniOf: 'The School of Examples' },
};
const SIGNER = 'did:key:z6MkrJVnaZkeFzdQyMZu1cgjg7k1pZZ6pvBQ7XJPt4swbTQ2';
const PROOF = {
  type: 'DataIntegrityProof',
  cryptosuite: 'eddsa-jcs-2022',
  created: '2023-02-24T23:36:38Z',
  verificationMethod: `${SIGNER}#${SIGNER.slice('did:key:'.length)}`,
  proofPurpose: 'assertionMethod',
  '@context': ALUMNI['@context'],
  proofValue: 'z2HnFSSPPBzR36zdDgK8PbEHeXbR56YF24jwMpt3R1eHXQzJDMWS93FCzpvJpwTWd3GAVFuUfjoJdcnTMuVor51aX',
};

describe('the published credential of eddsa-jcs-2022', () => {
  test('has the published hash', () => {
    expect(bytesToHex(canonicalHash(ALUMNI))).toBe(
      '59b7cb6251b8991add1ce0bc83107e3db9dbbab5bd2c28f687db1a03abc92f19',
    );
  });

  test('verifies', () => {
    expect(signatureFault({ ...ALUMNI, proof: PROOF }, SIGNER)).toBeNull();
  });

  test.each([
    ['another word', { ...ALUMNI, name: 'Alumni Credentials', proof: PROOF }, 'does-not-match'],
    ['another moment', { ...ALUMNI, proof: { ...PROOF, created: '2023-02-24T23:36:39Z' } }, 'does-not-match'],
    ['no proof', ALUMNI, 'no-proof'],
    [
      'another suite',
      { ...ALUMNI, proof: { ...PROOF, cryptosuite: 'eddsa-rdfc-2022' } },
      'other-kind-of-proof',
    ],
    [
      'another purpose',
      { ...ALUMNI, proof: { ...PROOF, proofPurpose: 'authentication' } },
      'other-kind-of-proof',
    ],
    [
      'a context that the document lacks',
      { ...ALUMNI, '@context': [ALUMNI['@context'][1]], proof: PROOF },
      'does-not-match',
    ],
    [
      'a signature that is no multibase',
      { ...ALUMNI, proof: { ...PROOF, proofValue: 'm0OIl' } },
      'does-not-match',
    ],
  ])('does not with %s', (_what, document, fault) => {
    expect(signatureFault(document, SIGNER)).toBe(fault);
  });
});

test('canonical forms are those of RFC 8785, sections 3.2.2 and 3.2.3', () => {
  const values: unknown = JSON.parse(
    String.raw`{"numbers":[333333333.33333329,1E30,4.50,2e-3,0.000000000000000000000000001],"string":"\u20ac$\u000F\u000aA'\u0042\u0022\u005c\\\"\/","literals":[null,true,false]}`,
  );
  expect(canonicalize(values)).toBe(
    String.raw`{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\u000f\nA'B\"\\\\\"/"}`,
  );
  const names = { '\u20ac': 1, '\r': 2, '\ufb33': 3, '1': 4, '\ud83d\ude00': 5, '\u0080': 6, '\u00f6': 7 };
  const order = Object.keys(JSON.parse(canonicalize(names)!) as object);
  // Integer-like names come first in an object of JavaScript; the canonical text is what counts.
  expect(canonicalize(names)).toBe(
    '{"\\r":2,"1":4,"\u0080":6,"\u00f6":7,"\u20ac":1,"\ud83d\ude00":5,"\ufb33":3}',
  );
  expect(order).toHaveLength(7);
});

test('keys are those of RFC 8032, section 7.1, test 1, and name themselves as did:key', () => {
  const secret = hexToBytes('9d61b19deffd5a60ba844af492ec2cc44449c5697b326919703bac031cae7f60');
  const key = hexToBytes('d75a980182b10ab7d54bfed3c964073a0ee172f3daa62325af021a68f707511a');
  const did = didOfKey(key);
  expect(did).toMatch(/^did:key:z6Mk/);
  expect(keyOfDid(did)).toEqual(key);
  const signed = sign({ a: 1 }, secret, '2026-11-28T09:00:00Z');
  expect(signed.proof.verificationMethod).toBe(`${did}#${did.slice(8)}`);
  expect(signatureFault(signed, did)).toBeNull();
  // A key of another kind: P-256, from the examples of the did:key method.
  expect(keyOfDid('did:key:zDnaerx9CtbPJ1q36T5Ln5wYt3MQYeGRG5ehnPAmxcf5mDZpv')).toBeNull();
  expect(keyOfDid('did:web:example.org')).toBeNull();
});

test('the digest of no bytes is that of FIPS 180-4, as a multihash', () => {
  // SHA-256 of nothing: e3b0c442…, from FIPS 180-4's examples; sha2-256 is 0x12, 32 bytes are 0x20.
  expect(digestMultibase(new Uint8Array())).toBe('zQmdfTbBqBPQ7VNxZEYEj14VmRuZBkqFbiwReogJgS1zR1n');
});
