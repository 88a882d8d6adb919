import { randomUUID } from 'node:crypto';
import type { StatementLine } from '@karyotome/contract';
import {
  claimChanges,
  CONTEXT,
  sign,
  type ClaimChange,
  type Evidence,
  type StatementSubject,
} from '@karyotome/lineage';
import { becauseOf, NOT_CLAIMED } from '@karyotome/words';
import { nowRfc3339 } from '../../clock.ts';
import type { Actor, Work } from '../../db/work.ts';
import type { Composition } from './compose-statement.ts';
import { signingKey } from './signing-keys.ts';
import { changedFacts } from './stated-facts.ts';
import { checkPicturesStand } from './stated-pictures.ts';
import { documentOf, statementsOf, subjectOf, type IssuedRow } from './statements.queries.ts';
import { collectionOf } from '../collection/collection-of.ts';

/** A statement as it is listed. */
export function statementLine(row: IssuedRow): StatementLine {
  const { issuer, credentialSubject } = documentOf(row);
  const { changes = [] } = credentialSubject;
  return {
    statement: row.statement,
    asOf: row.asOf,
    key: issuer.id,
    changes: changes.map(({ from, to, on, because }) => ({ from, to, on, because })),
  };
}

/**
 * Signs and keeps the next statement of an animal; where the newest one says the same, there is nothing to state anew.
 *
 * @returns the number of the newest statement
 */
export async function issueStatement(
  work: Work<Actor>,
  serverSecret: string,
  { animalId, subject, shown }: Composition,
): Promise<{ statement: number }> {
  const { collectionId, accountId } = work.actor;
  const [newest] = await statementsOf(work, { animalId });
  const before = newest && subjectOf(newest);
  const changes = before ? changesSince(before, subject) : [];
  if (newest && before && changes.length === 0 && isSameAnimal(before, subject))
    return { statement: newest.statement };
  await checkPicturesStand(work, animalId, subject);
  const statement = (newest?.statement ?? 0) + 1;
  const { did, secretKey } = await signingKey(work, serverSecret);
  const collection = await collectionOf(work);
  const now = nowRfc3339();
  const id = randomUUID();
  const document = sign(
    {
      '@context': CONTEXT,
      id: `urn:uuid:${id}`,
      type: ['VerifiableCredential', 'LineageCredential'],
      issuer: { id: did, name: collection.name },
      validFrom: now,
      credentialSubject: {
        ...subject,
        statement,
        ...(newest ? { previous: `urn:uuid:${newest.id}` } : {}),
        ...(changes.length > 0 ? { changes } : {}),
      },
    },
    secretKey,
    now,
  );
  await work.models.statements.create(
    {
      collectionId,
      id,
      animalId,
      statement,
      asOf: subject.asOf,
      document: JSON.stringify(document),
      shown,
      authorId: accountId,
    },
    { transaction: work.transaction },
  );
  return { statement };
}

/** What a statement says otherwise than the one before, each with the evidence that is new, or that is gone. */
export function changesSince(before: StatementSubject, after: Composition['subject']): ClaimChange[] {
  const because = becauseOf(
    evidenceBeyond(after.evidence, before.evidence).map((one) => spoken(one, after.named)),
    evidenceBeyond(before.evidence, after.evidence).map((one) => spoken(one, before.named)),
  );
  return claimChanges(before.claims, after.claims).map(({ locus, from, to }) => ({
    locus,
    from: from ?? NOT_CLAIMED,
    to: to ?? NOT_CLAIMED,
    on: after.asOf,
    because: because(locus),
  }));
}

const keyOf = ({ animal, locus, kind, on, sure, words }: Evidence): string =>
  JSON.stringify([animal, locus, kind, on, sure, words]);

function evidenceBeyond(list: readonly Evidence[], known: readonly Evidence[]): Evidence[] {
  const keys = new Set(known.map(keyOf));
  return list.filter((one) => !keys.has(keyOf(one)));
}

const spoken = ({ animal, locus, words }: Evidence, named: StatementSubject['named']) => ({
  locus,
  words,
  name: named[animal] ?? null,
});

/** Whether what is said besides the claims is the same. */
function isSameAnimal(before: StatementSubject, after: Composition['subject']): boolean {
  const named = (subject: Composition['subject']): string =>
    JSON.stringify(Object.entries(subject.named).toSorted());
  return changedFacts(before, after).length === 0 && named(before) === named(after);
}
