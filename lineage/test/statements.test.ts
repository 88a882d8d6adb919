import { InputError } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { verifyFile, type Verification } from '../src/index.ts';
import {
  altered,
  CLAIM,
  DAM,
  didOf,
  HATCHLING,
  hetClown,
  PEDIGREE,
  statementOf,
  SUBJECT,
  toBytes,
  visualClown,
} from './documents.ts';

const verify = async (document: unknown) => (await verifyFile(toBytes(document))) as Verification;
const codes = ({ problems }: Verification): string[] => problems.map(({ code }) => code);

test('a statement whose claims follow is valid, and says what of', async () => {
  expect(await verify(statementOf())).toEqual({
    format: 'karyotome-verification/1',
    valid: true,
    issuer: { id: didOf(1), name: 'Thistlecote Burrow' },
    signature: 'valid',
    subject: { id: HATCHLING, number: '2602-02', statement: 1, asOf: '2026-11-28' },
    // Two of the three young that do not show it carry it (Mendel).
    claims: [
      {
        locus: 'clown',
        words: '66% het Clown',
        p: 0.666667,
        derived: expect.closeTo(2 / 3, 12),
        follows: true,
      },
    ],
    files: [],
    problems: [],
  });
});

test('what a document holds besides is signed with it, and left alone', async () => {
  const more = statementOf({ claims: [], evidence: [], cautions: [], hatchedOn: undefined });
  expect(await verify(more)).toMatchObject({ valid: true, claims: [] });
});

describe('is not valid', () => {
  test.each([
    ['a claim was raised', altered(statementOf(), 'credentialSubject.claims.0.p', 1), 'invalid'],
    ['a name was changed', altered(statementOf(), 'credentialSubject.name', 'Bracken'), 'invalid'],
    ['a field was added', altered(statementOf(), 'credentialSubject.price', 900), 'invalid'],
    ['the moment was changed', altered(statementOf(), 'proof.created', '2026-11-28T09:00:01Z'), 'invalid'],
    ['its moment is nonsense', altered(statementOf(), 'proof.created', 'x'), 'invalid'],
    ['the signature was taken away', altered(statementOf(), 'proof', undefined), 'missing'],
    ['the signature is nonsense', altered(statementOf(), 'proof.proofValue', 'zzz'), 'invalid'],
    ['somebody else signed it', statementOf({}, { key: 2, issuer: didOf(1) }), 'invalid'],
    ['the issuer was replaced', altered(statementOf(), 'issuer.id', didOf(2)), 'invalid'],
  ])('where %s', async (_what, document, signature) => {
    expect(await verify(document)).toMatchObject({ valid: false, signature });
  });

  test.each([
    ['more than follows', { claims: [{ ...CLAIM, p: 0.7 }] }, ['claim-does-not-follow']],
    ['less than follows', { claims: [{ ...CLAIM, p: 0.666664 }] }, ['claim-does-not-follow']],
    [
      'a sure carrier that is none for certain',
      { claims: [{ ...CLAIM, kind: 'sure-carrier' }] },
      ['claim-overstated'],
    ],
    [
      'a carrier, with the genotype of none',
      {
        claims: [
          {
            ...CLAIM,
            genotypes: [
              ['+', '+'],
              ['+', 'clown'],
            ],
            p: 1,
          },
        ],
      },
      ['claim-overstated'],
    ],
    ['a double, with a single copy', { claims: [{ ...CLAIM, kind: 'double' }] }, ['claim-overstated']],
  ])('where it claims %s', async (_what, changed, expected) => {
    const answer = await verify(statementOf(changed));
    expect(answer.signature).toBe('valid');
    expect(answer.valid).toBe(false);
    expect(codes(answer)).toEqual(expected);
  });

  test('where two clowns have a young without it', async () => {
    const pedigree = {
      ...PEDIGREE,
      animals: PEDIGREE.animals.map((animal) =>
        'founder' in animal ? { ...animal, founder: visualClown } : animal,
      ),
    };
    const answer = await verify(statementOf({ pedigree }));
    expect(answer).toMatchObject({ valid: false, claims: [{ derived: null, follows: false }] });
    expect(codes(answer)).toEqual(['records-contradict', 'claim-does-not-follow']);
  });
});

test('a male’s sex-linked pair is [X, Y]: its order is part of a claim', async () => {
  const pedigree = {
    format: 'karyotome-pedigree/1',
    loci: [{ id: 'banana', alleles: ['banana'], sexLinked: true, recombination: 0.07 }],
    animals: [{ id: HATCHLING, sex: 'male', founder: { banana: [{ genotype: ['+', 'banana'], p: 1 }] } }],
  };
  const claim = { animal: HATCHLING, locus: 'banana', kind: 'visual', words: 'Banana', p: 1 };
  const claims = [
    { ...claim, genotypes: [['+', 'banana']] },
    { ...claim, genotypes: [['banana', '+']] },
  ];
  const named = { [HATCHLING]: 'M-1' };
  const answer = await verify(statementOf({ pedigree, claims, named, evidence: [] }));
  expect(answer.claims.map(({ derived }) => derived)).toEqual([1, 0]);
});

describe('is refused, with the field at fault', () => {
  const subject = (path: string, value: unknown) =>
    altered(statementOf(), `credentialSubject.${path}`, value);
  test.each([
    ['{', 'document: is not JSON'],
    ['[]', 'credentialSubject.format: must be "karyotome-lineage/1"'],
    ['null', 'credentialSubject.format: must be'],
    [subject('format', 'karyotome-lineage/2'), 'credentialSubject.format: must be'],
    [altered(statementOf(), 'issuer', undefined), 'issuer: is missing'],
    [altered(statementOf(), 'issuer.id', 'did:web:example.org'), 'issuer.id: must be the did:key'],
    [altered(statementOf(), 'id', 'urn:uuid:1'), 'id: must be "urn:uuid:" and a UUID'],
    [altered(statementOf(), 'type', ['VerifiableCredential']), 'type: lacks'],
    [altered(statementOf(), '@context', ['https://www.w3.org/ns/credentials/v2']), '@context: '],
    [altered(statementOf(), 'validFrom', '2026-11-28'), 'validFrom: must be a moment'],
    [subject('number', undefined), 'credentialSubject.number: is missing'],
    [subject('statement', 0), 'credentialSubject.statement: must be at least 1'],
    [subject('asOf', '2026-02-30'), 'credentialSubject.asOf: must be a day that exists'],
    [subject('pedigree', undefined), 'credentialSubject.pedigree: is missing'],
    [subject('claims', undefined), 'credentialSubject.claims: is missing'],
    [subject('evidence', undefined), 'credentialSubject.evidence: is missing'],
    [subject('claims.0.kind', 'certain'), 'credentialSubject.claims.0.kind: must be one of'],
    [subject('claims.0.p', 1.5), 'credentialSubject.claims.0.p: must be at most 1'],
    [subject('claims.0.p', '0.5'), 'credentialSubject.claims.0.p: must be a number'],
    [subject('claims.0.locus', 'pied'), 'credentialSubject.claims.0.locus: names pied, which is not'],
    [subject('claims.0.animal', 'urn:x'), 'credentialSubject.claims.0.animal: names urn:x, which is not'],
    [subject('claims.0.genotypes', [['+', 'pied']]), 'credentialSubject.claims.0.genotypes: name pied'],
    [subject('named', { [DAM]: 'F-09' }), 'credentialSubject.named: does not name the animal itself'],
    [subject('pedigree.format', 'x'), 'credentialSubject.pedigree.format: must be'],
    [
      subject('pedigree.animals.0.dam', 'nobody'),
      `credentialSubject.pedigree.animals.${HATCHLING}.dam: names nobody, which is not in the document`,
    ],
    [
      subject('pedigree.animals.1.founder', { clown: [{ genotype: ['+', '+'], p: 0.9 }] }),
      'must add up to 1',
    ],
    [subject('pictures', [{ file: 'a.jpg' }]), 'credentialSubject.pictures.0.mediaType: is missing'],
  ])('%#: %s', async (document, message) => {
    const refused = verifyFile(toBytes(document));
    await expect(refused).rejects.toThrow(InputError);
    await expect(refused).rejects.toThrow(message);
  });

  test.each([
    ['a member given twice', `{"id":"urn:a","id":"urn:a"}`, 'id: is given twice'],
    ['the same, escaped', String.raw`{"a":{"id":1,"\u0069d":2}}`, 'a.id: is given twice'],
    ['a lone surrogate', String.raw`{"a":"\ud800"}`, 'a: holds a surrogate'],
    ['a lone surrogate in a name', String.raw`{"\udc00":1}`, 'document: holds a surrogate'],
    ['a noncharacter', '{"a":"\uffff"}', 'a: holds a surrogate'],
    ['a number without end', '{"a":1e999}', 'a: is too large a number'],
    ['a byte order mark', '\ufeff{}', 'document: is not JSON'],
    ['depth', `${'['.repeat(50_000)}${']'.repeat(50_000)}`, 'is nested too deeply'],
    ['a comment', '{"a":1/* b */}', 'document: is not JSON'],
  ])('%s (RFC 7493, RFC 8259)', async (_what, text, message) => {
    await expect(verifyFile(toBytes(text))).rejects.toThrow(message);
  });

  test('bytes that are no UTF-8', async () => {
    await expect(verifyFile(Uint8Array.of(0x22, 0xff, 0x22))).rejects.toThrow('document: is not UTF-8');
  });
});

test('the example’s numbers hold: a carrier and a wild type give half', async () => {
  const founders = [hetClown, { clown: [{ genotype: ['+', '+'], p: 1 }] }];
  const pedigree = {
    ...PEDIGREE,
    animals: PEDIGREE.animals.map((animal, i) => (i > 0 ? { ...animal, founder: founders[i - 1] } : animal)),
  };
  const claims = [{ ...CLAIM, p: 0.5, words: '50% het Clown' }];
  expect(await verify(statementOf({ ...SUBJECT, pedigree, claims }))).toMatchObject({ valid: true });
});
