import { signatureFault } from '../proof/data-integrity.ts';
import type { Statement } from '../document/statement.ts';
import type { KeySuccession } from '../document/succession.ts';
import type { Problem } from './problems.ts';

/** Documents that came before a statement, with the file that each was read from. */
export interface Earlier {
  readonly statements: readonly { readonly file: string; readonly statement: Statement }[];
  readonly successions: readonly { readonly file: string; readonly succession: KeySuccession }[];
}

/**
 * Whether the statements before this one lead to it without a gap, each signed by the collection's key of its time. Asked only
 * where earlier ones are given: a statement alone stands for itself.
 */
export function checkChain(newest: Statement, { statements, successions }: Earlier): Problem[] {
  const keys = readSuccessions(successions);
  const problems: Problem[] = [...keys.problems];
  const { id } = newest.credentialSubject;
  for (const { file, statement } of statements) {
    if (statement.credentialSubject.id !== id) problems.push({ code: 'other-animal', facts: { file } });
    else if (signatureFault(statement, statement.issuer.id))
      problems.push({ code: 'earlier-signature-invalid', facts: { file } });
  }
  const own = statements.map(({ statement }) => statement).filter((one) => one.credentialSubject.id === id);
  // A package may hold the newest among the earlier ones.
  const chain = [...own.filter((one) => one.id !== newest.id), newest];
  return [
    ...problems,
    ...numberProblems(newest),
    ...linkProblems(chain, keys.next),
    ...chain.flatMap(keys.late),
  ];
}

function numberProblems({ credentialSubject: { statement, previous } }: Statement): Problem[] {
  if (statement > 1 && previous === undefined) return [{ code: 'previous-missing', facts: { statement } }];
  if (statement === 1 && previous !== undefined)
    return [{ code: 'previous-unexpected', facts: { statement } }];
  return [];
}

/** @param chain - the newest last */
function linkProblems(chain: readonly Statement[], next: ReadonlyMap<string, string>): Problem[] {
  const problems: Problem[] = [];
  const byNumber = new Map<number, Statement>();
  const newest = chain.at(-1)!.credentialSubject.statement;
  for (const one of chain) {
    const { statement } = one.credentialSubject;
    if (statement >= newest && one !== chain.at(-1)) {
      problems.push({ code: 'statement-not-earlier', facts: { statement } });
      continue;
    }
    if (byNumber.has(statement)) problems.push({ code: 'statement-twice', facts: { statement } });
    byNumber.set(statement, one);
  }
  const numbers = [...byNumber.keys()].toSorted((a, b) => a - b);
  for (const [i, statement] of numbers.entries()) {
    if (i === 0) continue;
    const one = byNumber.get(statement)!;
    const before = byNumber.get(statement - 1);
    if (before) problems.push(...stepProblems(before, one, next));
    else problems.push({ code: 'statement-absent', facts: { statement: statement - 1 } });
  }
  return problems;
}

function stepProblems(before: Statement, after: Statement, next: ReadonlyMap<string, string>): Problem[] {
  const { statement, previous } = after.credentialSubject;
  const problems: Problem[] = [];
  if (previous !== before.id) problems.push({ code: 'previous-differs', facts: { statement } });
  if (Date.parse(after.validFrom) < Date.parse(before.validFrom))
    problems.push({ code: 'earlier-than-previous', facts: { statement } });
  if (!leadsTo(before.issuer.id, after.issuer.id, next))
    problems.push({ code: 'key-not-succeeded', facts: { statement } });
  return problems;
}

/** Whether a key is the same, or replaced by the other one, once or several times. */
function leadsTo(from: string, to: string, next: ReadonlyMap<string, string>): boolean {
  const seen = new Set<string>();
  for (let key: string | undefined = from; key !== undefined && !seen.has(key); key = next.get(key)) {
    if (key === to) return true;
    seen.add(key);
  }
  return false;
}

/** Successions that the old key signed: old key -> new key, and who signed after being replaced. */
function readSuccessions(successions: Earlier['successions']): {
  problems: Problem[];
  next: ReadonlyMap<string, string>;
  late: (statement: Statement) => Problem[];
} {
  const problems: Problem[] = [];
  const next = new Map<string, string>();
  const replacedOn = new Map<string, string>();
  for (const { file, succession } of successions) {
    const { id, replaces, on } = succession.credentialSubject;
    if (id === replaces || succession.issuer.id !== replaces || signatureFault(succession, replaces))
      problems.push({ code: 'succession-invalid', facts: { file } });
    else if ((next.get(replaces) ?? id) !== id)
      problems.push({ code: 'key-replaced-twice', facts: { file } });
    else {
      next.set(replaces, id);
      replacedOn.set(replaces, on);
    }
  }
  const late = ({ issuer, validFrom, credentialSubject: { statement } }: Statement): Problem[] => {
    const on = replacedOn.get(issuer.id);
    return on !== undefined && validFrom.slice(0, 10) > on
      ? [{ code: 'key-was-replaced', facts: { statement, on } }]
      : [];
  };
  return { problems, next, late };
}
