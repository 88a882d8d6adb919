import { ed25519 } from '@noble/curves/ed25519.js';
import {
  CONTEXT,
  didOfKey,
  sign,
  type KeySuccession,
  type Statement,
  type StatementSubject,
} from '../src/index.ts';

/** Signed documents of an invented collection, for tests to hold up, change and break. */

export const KEYS = [1, 2, 3].map((n) => new Uint8Array(32).fill(n));
export const didOf = (key: number): string => didOfKey(ed25519.getPublicKey(KEYS[key - 1]!));

const uuid = (n: number): string => `urn:uuid:00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
export const HATCHLING = uuid(1);
export const DAM = uuid(2);
export const SIRE = uuid(3);
export const statementId = (statement: number): string => uuid(100 + statement);

export const visualClown = { clown: [{ genotype: ['clown', 'clown'], p: 1 }] };
export const hetClown = { clown: [{ genotype: ['+', 'clown'], p: 1 }] };

/** A het x het young that does not show it: 2/3 a carrier (Mendel). */
export const PEDIGREE = {
  format: 'karyotome-pedigree/1',
  loci: [{ id: 'clown', alleles: ['clown'] }],
  animals: [
    {
      id: HATCHLING,
      sex: 'female',
      dam: DAM,
      sires: [{ id: SIRE }],
      calls: [
        {
          locus: 'clown',
          is: [
            ['+', '+'],
            ['+', 'clown'],
          ],
        },
      ],
    },
    { id: DAM, sex: 'female', founder: hetClown },
    { id: SIRE, sex: 'male', founder: hetClown },
  ],
};

export const CLAIM = {
  animal: HATCHLING,
  locus: 'clown',
  kind: 'possible-carrier',
  genotypes: [
    ['+', 'clown'],
    ['clown', 'clown'],
  ],
  p: 0.666667,
  words: '66% het Clown',
} as const;

export const SUBJECT: StatementSubject = {
  id: HATCHLING,
  format: 'karyotome-lineage/1',
  statement: 1,
  asOf: '2026-11-28',
  number: '2602-02',
  name: "Bracken's Pride",
  sex: 'female',
  hatchedOn: '2026-06-29',
  pedigree: PEDIGREE,
  named: { [HATCHLING]: '2602-02', [DAM]: 'F-09' },
  evidence: [
    {
      animal: HATCHLING,
      locus: 'clown',
      kind: 'identification',
      on: '2026-07-13',
      sure: 'certain',
      words: 'not Clown',
    },
  ],
  claims: [CLAIM],
};

export interface Making {
  /** 1 to 3 */
  readonly key?: number;
  readonly validFrom?: string;
  readonly issuer?: string;
}

/** A signed statement. @param changed - fields of the subject that differ from SUBJECT's */
export function statementOf(
  changed: Partial<Record<keyof StatementSubject, unknown>> = {},
  { key = 1, validFrom = '2026-11-28T09:00:00Z', issuer = didOf(key) }: Making = {},
): Statement {
  const subject = { ...SUBJECT, ...changed } as StatementSubject;
  const unsigned = {
    '@context': CONTEXT,
    id: statementId(subject.statement),
    type: ['VerifiableCredential', 'LineageCredential'],
    issuer: { id: issuer, name: 'Thistlecote Burrow' },
    validFrom,
    credentialSubject: subject,
  };
  return sign(unsigned, KEYS[key - 1]!, validFrom);
}

/** The statement with a number, following the one before. */
export const chained = (statement: number, making: Making = {}, previous = statementId(statement - 1)) =>
  statementOf({ statement, ...(statement > 1 ? { previous } : {}) }, making);

/** A key introduced by another one, which signs unless `signer` does. */
export function successionOf(from: number, to: number, on = '2026-11-01', signer = from): KeySuccession {
  const validFrom = `${on}T08:00:00Z`;
  const unsigned = {
    '@context': CONTEXT,
    id: uuid(200 + to),
    type: ['VerifiableCredential', 'KeySuccession'],
    issuer: { id: didOf(from), name: 'Thistlecote Burrow' },
    validFrom,
    credentialSubject: {
      id: didOf(to),
      format: 'karyotome-key/1' as const,
      replaces: didOf(from),
      on,
    },
  };
  return sign(unsigned, KEYS[signer - 1]!, validFrom);
}

export const toBytes = (document: unknown): Uint8Array =>
  new TextEncoder().encode(typeof document === 'string' ? document : JSON.stringify(document));

/** Another value at a path of a document, which is not signed again; undefined takes the field away. */
export function altered<T>(document: T, path: string, value: unknown): T {
  const copy = structuredClone(document);
  const parts = path.split('.');
  const last = parts.pop()!;
  const holder = parts.reduce<Record<string, unknown>>(
    (at, part) => at[part] as Record<string, unknown>,
    copy as Record<string, unknown>,
  );
  if (value === undefined) delete holder[last];
  else holder[last] = value;
  return copy;
}
