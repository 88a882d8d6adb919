import type { Pedigree } from '@karyotome/core';
import { signatureFault, type SignatureFault } from '../proof/data-integrity.ts';
import type { Statement } from '../document/statement.ts';
import type { Verification, VerifiedFile } from './answer.ts';
import { checkChain, type Earlier } from './check-chain.ts';
import { deriveClaims } from './derive-claims.ts';
import type { Problem } from './problems.ts';

const NONE: Earlier = { statements: [], successions: [] };

/** What came with a statement. */
export interface Enclosed {
  readonly earlier?: Earlier;
  readonly files?: readonly VerifiedFile[];
  readonly problems?: readonly Problem[];
}

/** Checks a statement's signature, its claims, its chain, and what was found of the files that came with it. */
export function verifyStatement(
  { statement, pedigree }: { statement: Statement; pedigree: Pedigree },
  { earlier = NONE, files = [], problems: ofFiles = [] }: Enclosed = {},
): Verification {
  const { issuer, credentialSubject } = statement;
  const fault = signatureFault(statement, issuer.id);
  const derived = deriveClaims(pedigree, credentialSubject.claims);
  const problems = [
    ...(fault ? [signatureProblem(fault, issuer.id)] : []),
    ...derived.problems,
    ...checkChain(statement, earlier),
    ...ofFiles,
  ];
  const { id, number, statement: count, asOf } = credentialSubject;
  return {
    format: 'karyotome-verification/1',
    valid: problems.length === 0,
    issuer: { id: issuer.id, name: issuer.name },
    signature: fault === null ? 'valid' : fault === 'no-proof' ? 'missing' : 'invalid',
    subject: { id, number, statement: count, asOf },
    claims: derived.claims,
    files,
    problems,
  };
}

function signatureProblem(fault: SignatureFault, issuer: string): Problem {
  switch (fault) {
    case 'no-proof':
      return { code: 'signature-missing', facts: {} };
    case 'other-kind-of-proof':
      return { code: 'other-kind-of-proof', facts: {} };
    case 'other-signer':
      return { code: 'other-signer', facts: { issuer } };
    case 'does-not-match':
      return { code: 'signature-invalid', facts: {} };
  }
}
