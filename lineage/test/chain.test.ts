import { describe, expect, test } from 'vitest';
import { createBag, verifyFile, type Verification } from '../src/index.ts';
import { altered, chained, statementOf, successionOf, toBytes } from './documents.ts';

describe('statements that follow one another', () => {
  const verified = async (newest: unknown, earlier: readonly unknown[]): Promise<Verification> => {
    const before = earlier.map((one, i): [string, Uint8Array] => [`earlier/${i + 1}.json`, toBytes(one)]);
    const files = new Map([['lineage.json', toBytes(newest)], ...before]);
    return (await verifyFile(await createBag('chain', files, new Date(0)))) as Verification;
  };
  const early = { validFrom: '2026-10-01T09:00:00Z' };

  test.each([
    ['two by one key', chained(2), [chained(1, early)]],
    ['three, in any order', chained(3), [chained(2, early), chained(1, early)]],
    ['a second one alone', chained(2), []],
    ['a key that was succeeded', chained(2, { key: 2 }), [chained(1, early), successionOf(1, 2)]],
    [
      'two keys further on',
      chained(2, { key: 3 }),
      [chained(1, early), successionOf(2, 3), successionOf(1, 2)],
    ],
  ])('hold: %s', async (_what, newest, earlier) => {
    expect(await verified(newest, earlier)).toMatchObject({ valid: true, problems: [] });
  });

  test.each([
    [
      'another one before',
      chained(2, {}, 'urn:uuid:00000000-0000-4000-8000-999999999999'),
      [chained(1, early)],
      'previous-differs',
    ],
    [
      'one of them changed',
      chained(2),
      [altered(chained(1, early), 'credentialSubject.name', 'x')],
      'earlier-signature-invalid',
    ],
    ['another animal', chained(2), [{ ...chained(1, early), ...otherAnimal() }], 'other-animal'],
    ['a gap', chained(3), [chained(1, early)], 'statement-absent'],
    ['a number twice', chained(2), [chained(1, early), chained(1)], 'statement-twice'],
    ['one that is not earlier', chained(2), [chained(1, early), chained(3, early)], 'statement-not-earlier'],
    ['days the wrong way round', chained(2, early), [chained(1)], 'earlier-than-previous'],
    ['a second one that names none', statementOf({ statement: 2 }), [], 'previous-missing'],
    [
      'a first one that names one',
      statementOf({ previous: 'urn:uuid:00000000-0000-4000-8000-000000000101' }),
      [],
      'previous-unexpected',
    ],
    ['a key from nowhere', chained(2, { key: 2 }), [chained(1, early)], 'key-not-succeeded'],
    [
      'a key that introduced itself',
      chained(2, { key: 2 }),
      [chained(1, early), successionOf(1, 2, '2026-11-01', 2)],
      'succession-invalid',
    ],
    [
      'a key that was replaced before',
      chained(2),
      [chained(1, early), successionOf(1, 2)],
      'key-was-replaced',
    ],
    [
      'two heirs of one key',
      chained(2, { key: 2 }),
      [chained(1, early), successionOf(1, 2), successionOf(1, 3)],
      'key-replaced-twice',
    ],
  ])('do not hold: %s', async (_what, newest, earlier, code) => {
    const answer = await verified(newest, earlier);
    expect(answer.valid).toBe(false);
    expect(answer.problems.map((problem) => problem.code)).toContain(code);
  });
});

/** A statement of somebody else's animal. */
function otherAnimal(): object {
  const other = 'urn:uuid:00000000-0000-4000-8000-000000000077';
  const animals = [{ id: other, sex: 'female' }];
  return statementOf({
    id: other,
    named: { [other]: 'X' },
    pedigree: { format: 'karyotome-pedigree/1', loci: [], animals },
    claims: [],
    evidence: [],
  });
}
