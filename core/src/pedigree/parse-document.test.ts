import { describe, expect, test } from 'vitest';
import { InputError } from '../errors.ts';
import { parsePedigree } from './parse-document.ts';

/** A sound document, to be spoilt one field at a time. */
const sound = () => ({
  format: 'karyotome-pedigree/1',
  loci: [
    { id: 'clown', alleles: ['clown'] },
    { id: 'banana', alleles: ['banana'], sexLinked: true, recombination: 0.07 },
  ] as Record<string, unknown>[],
  assume: { unrecorded: 0.01 } as Record<string, unknown>,
  animals: [
    {
      id: 'F1',
      sex: 'female',
      founder: {
        clown: [
          { genotype: ['+', 'clown'], p: 0.66 },
          { genotype: ['+', '+'], p: 0.34 },
        ],
      },
    },
    { id: 'M1', sex: 'male' },
    {
      id: 'H1',
      dam: 'F1',
      sires: [{ id: 'M1', weight: 3 }],
      calls: [{ locus: 'clown', is: [['+', '+']], error: 0 }],
    },
  ] as Record<string, unknown>[],
});

function issuesOf(document: unknown): string[] {
  try {
    parsePedigree(document);
    return [];
  } catch (error) {
    return (error as InputError).issues.map(({ path, message }) => `${path}: ${message}`);
  }
}

describe('a pedigree document', () => {
  test('is read with its defaults', () => {
    const { animals, unrecorded } = parsePedigree(sound());
    expect(unrecorded).toBe(0.01);
    expect(animals[2]).toEqual({
      id: 'H1',
      sex: 'unknown',
      dam: 'F1',
      sires: [{ id: 'M1', weight: 3 }],
      calls: [{ locus: 'clown', is: [['+', '+']], error: 0 }],
    });
    expect(parsePedigree({ ...sound(), assume: undefined }).unrecorded).toBe(0.01);
    expect(parsePedigree({ ...sound(), animals: [{ id: 'a', sires: [] }] }).animals[0]).toEqual({
      id: 'a',
      sex: 'unknown',
    });
  });

  const spoilt: [string, (document: ReturnType<typeof sound>) => unknown, string][] = [
    ['is no object', () => [], 'document: must be an object'],
    [
      'of another format',
      (d) => ({ ...d, format: 'karyotome-pedigree/2' }),
      'format: must be "karyotome-pedigree/1"',
    ],
    ['without loci', (d) => ({ ...d, loci: undefined }), 'loci: is missing'],
    ['with a locus twice', (d) => ({ ...d, loci: [...d.loci, d.loci[0]] }), 'loci.clown.id: is used twice'],
    [
      'with an allele twice',
      (d) => void (d.loci[0]!['alleles'] = ['a', 'a']),
      'loci.clown.alleles: lists "a" twice',
    ],
    [
      'listing wild type',
      (d) => void (d.loci[0]!['alleles'] = ['+']),
      'loci.clown.alleles: must not list the wild type "+"',
    ],
    [
      'without recombination',
      (d) => void delete d.loci[1]!['recombination'],
      'loci.banana.recombination: is missing',
    ],
    [
      'with too much of it',
      (d) => void (d.loci[1]!['recombination'] = 0.6),
      'loci.banana.recombination: must lie within 0 to 0.5',
    ],
    [
      'with too frequent alleles',
      (d) => void (d.assume['unrecorded'] = 1.5),
      'assume.unrecorded: must be a probability',
    ],
    ['with an id twice', (d) => void (d.animals[1]!['id'] = 'F1'), 'animals.F1.id: is used twice'],
    ['without an id', (d) => void (d.animals[1]!['id'] = ''), 'animals.1.id: must be a non-empty text'],
    [
      'with another sex',
      (d) => void (d.animals[1]!['sex'] = 'm'),
      'animals.M1.sex: must be female, male or unknown',
    ],
    [
      'with an unknown dam',
      (d) => void (d.animals[2]!['dam'] = 'F9'),
      'animals.H1.dam: names F9, which is not in the document',
    ],
    ['with a male dam', (d) => void (d.animals[2]!['dam'] = 'M1'), 'animals.H1.dam: names M1, which is male'],
    [
      'with a female sire',
      (d) => void (d.animals[2]!['sires'] = [{ id: 'F1' }]),
      'animals.H1.sires: names F1, which is female',
    ],
    [
      'with a sire of no weight',
      (d) => void (d.animals[2]!['sires'] = [{ id: 'M1', weight: 0 }]),
      'animals.H1.sires.0.weight: must be a number above 0',
    ],
    [
      'with a sire twice',
      (d) => void (d.animals[2]!['sires'] = [{ id: 'M1' }, { id: 'M1' }]),
      'animals.H1.sires.1.id: names M1 twice',
    ],
    [
      'with a founder that has parents',
      (d) => void (d.animals[2]!['founder'] = {}),
      'animals.H1.founder: is refused on an animal with a recorded parent',
    ],
    [
      'of which probabilities do not add up',
      (d) => void (d.animals[0]!['founder'] = { clown: [{ genotype: ['+', '+'], p: 0.9 }] }),
      'animals.F1.founder.clown: must add up to 1, but adds up to 0.9',
    ],
    [
      'with a founder at another locus',
      (d) => void (d.animals[0]!['founder'] = { pied: [{ genotype: ['+', '+'], p: 1 }] }),
      'animals.F1.founder.pied: names a locus that is not in the document',
    ],
    [
      'with an allele that is not listed',
      (d) => void (d.animals[2]!['calls'] = [{ locus: 'clown', is: [['+', 'pied']] }]),
      'animals.H1.calls.0.is: names "pied", which clown does not list',
    ],
    [
      'with a call at another locus',
      (d) => void (d.animals[2]!['calls'] = [{ locus: 'pied', is: [['+', '+']] }]),
      'animals.H1.calls.0.locus: names a locus that is not in the document',
    ],
    [
      'with a call that says nothing',
      (d) => void (d.animals[2]!['calls'] = [{ locus: 'clown', is: [] }]),
      'animals.H1.calls.0.is: must name at least one genotype',
    ],
    [
      'with a call that is always wrong',
      (d) => void (d.animals[2]!['calls'] = [{ locus: 'clown', is: [['+', '+']], error: 1 }]),
      'animals.H1.calls.0.error: must be 0 or more and below 1',
    ],
    [
      'with an animal that is its own ancestor',
      (d) =>
        void Object.assign(
          d.animals[0]!,
          { founder: undefined, dam: 'G' },
          d.animals.push({ id: 'G', sex: 'female', dam: 'F1' }) && {},
        ),
      'animals.F1.dam: makes it its own ancestor',
    ],
  ];
  test.each(spoilt)('%s is refused, naming the field', (_, spoil, issue) => {
    const document = sound();
    const changed = spoil(document) ?? document;
    expect(issuesOf(changed)).toContain(issue);
  });

  test('every issue is found, in the order of the document', () => {
    const document = sound();
    document.animals[0]!['sex'] = 'hen';
    document.animals[2]!['dam'] = 7;
    expect(issuesOf(document)).toEqual([
      'animals.F1.sex: must be female, male or unknown',
      'animals.H1.dam: must be an id',
    ]);
  });
});
