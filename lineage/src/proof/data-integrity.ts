import { ed25519 } from '@noble/curves/ed25519.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { concatBytes, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import { didOfKey, fromMultibase, keyOfDid, methodOfDid, toMultibase } from './multibase.ts';

/*
 * Proofs of cryptosuite eddsa-jcs-2022 (W3C Recommendation "Data Integrity EdDSA Cryptosuites v1.0", section 3.3): the proof's
 * configuration and the document, each canonicalised by RFC 8785 and hashed by SHA-256, signed together by Ed25519 (RFC 8032).
 */

export const CRYPTOSUITE = 'eddsa-jcs-2022';

type Json = Readonly<Record<string, unknown>>;

export interface Proof extends Json {
  readonly type: 'DataIntegrityProof';
  readonly cryptosuite: typeof CRYPTOSUITE;
  readonly created: string;
  readonly verificationMethod: string;
  readonly proofPurpose: 'assertionMethod';
  readonly proofValue: string;
}

/** An Ed25519 key with the name by which it is known. */
export interface KeyPair {
  readonly did: string;
  /** 32 bytes */
  readonly secretKey: Uint8Array;
}

/** @param secretKey - 32 bytes, from which the public key follows (RFC 8032, 5.1.5) */
export const keyPairOf = (secretKey: Uint8Array): KeyPair => ({
  did: didOfKey(ed25519.getPublicKey(secretKey)),
  secretKey,
});

export const newKeyPair = (): KeyPair => keyPairOf(ed25519.keygen().secretKey);

export type SignatureFault = 'no-proof' | 'other-kind-of-proof' | 'other-signer' | 'does-not-match';

/** SHA-256 of a value's canonical form. @returns 32 bytes */
export function canonicalHash(value: unknown): Uint8Array {
  return sha256(utf8ToBytes(canonicalize(value)!));
}

/**
 * Signs a document.
 *
 * @param secretKey - Ed25519, 32 bytes
 * @param created - RFC 3339, with offset
 * @returns the document with its proof
 */
export function sign<Document extends object>(
  document: Document,
  secretKey: Uint8Array,
  created: string,
): Document & { readonly proof: Proof } {
  const configuration = {
    type: 'DataIntegrityProof',
    cryptosuite: CRYPTOSUITE,
    created,
    verificationMethod: methodOfDid(didOfKey(ed25519.getPublicKey(secretKey))),
    proofPurpose: 'assertionMethod',
    ...('@context' in document ? { '@context': document['@context'] } : {}),
  } as const;
  const proofValue = toMultibase(ed25519.sign(signedBytes(configuration, document), secretKey));
  return { ...document, proof: { ...configuration, proofValue } };
}

/**
 * Whether the issuer signed a document as it stands.
 *
 * @param issuer - the `did:key` whose signature is asked for
 * @returns null where the signature holds
 */
export function signatureFault(document: object, issuer: string): SignatureFault | null {
  const { proof, ...unsecured } = document as Json;
  if (typeof proof !== 'object' || proof === null) return 'no-proof';
  const { proofValue, ...configuration } = proof as Json;
  if (
    configuration['type'] !== 'DataIntegrityProof' ||
    configuration['cryptosuite'] !== CRYPTOSUITE ||
    configuration['proofPurpose'] !== 'assertionMethod'
  )
    return 'other-kind-of-proof';
  const key = keyOfDid(issuer);
  if (!key || configuration['verificationMethod'] !== methodOfDid(issuer)) return 'other-signer';
  const signature = typeof proofValue === 'string' ? fromMultibase(proofValue) : null;
  const context = contextFor(configuration, unsecured);
  if (!signature || !context) return 'does-not-match';
  const bytes = signedBytes(configuration, { ...unsecured, ...context });
  return isSignedBy(key, signature, bytes) ? null : 'does-not-match';
}

/** The document's context must begin with the proof's, which then stands for it. @returns null where it does not */
function contextFor(configuration: Json, document: Json): Json | null {
  if (!('@context' in configuration)) return {};
  const ofProof = [configuration['@context']].flat();
  const ofDocument = [document['@context']].flat();
  const begins = ofProof.every((entry, i) => canonicalize(entry) === canonicalize(ofDocument[i]));
  return begins ? { '@context': configuration['@context'] } : null;
}

function signedBytes(configuration: object, document: object): Uint8Array {
  return concatBytes(canonicalHash(configuration), canonicalHash(document));
}

function isSignedBy(key: Uint8Array, signature: Uint8Array, bytes: Uint8Array): boolean {
  try {
    // As RFC 8032 has it: what other rules would let pass as the same signature is another one here.
    return ed25519.verify(signature, bytes, key, { zip215: false });
  } catch {
    return false;
  }
}
