import { expect, test } from 'vitest';
import { infer } from '../inference/infer.ts';
import { compilePedigree } from '../pedigree/from-records.ts';
import type { RecordedAnimal } from '../pedigree/recorded-animal.ts';
import { parsePedigree } from '../pedigree/parse-document.ts';
import { writePedigree } from '../pedigree/write-document.ts';
import { essentialPedigree } from './essential-pedigree.ts';
import { statedClaims } from './stated-claims.ts';

const founder = (id: string, sex: 'female' | 'male', genes: string): RecordedAnimal => ({
  id,
  sex,
  sires: [],
  identification: { record: `r-${id}`, genes, sure: 'certain' },
});
const young = (id: string, dam: string, sire: string | string[], genes?: string): RecordedAnimal => ({
  id,
  sex: 'unknown',
  dam,
  sires: [sire].flat().map((one) => ({ id: one, weight: 1 })),
  ...(genes === undefined ? {} : { identification: { record: `r-${id}`, genes, sure: 'certain' as const } }),
});

/** Two lines that meet in nothing, and one pair whose young prove the dam. */
const family: RecordedAnimal[] = [
  founder('D', 'female', 'normal'),
  founder('S', 'male', '50% het clown pastel'),
  young('H', 'D', 'S', 'pastel'),
  young('H2', 'D', 'S', 'normal'),
  founder('M', 'female', 'clown'),
  ...Array.from({ length: 6 }, (_, i) => young(`K${i}`, 'M', 'S', 'normal')),
  founder('X', 'female', 'clown'),
  founder('Y', 'male', 'pied'),
  young('Z', 'X', 'Y', 'normal'),
];

const claimsOf = (animals: RecordedAnimal[], id: string) =>
  statedClaims(infer(compilePedigree(animals)).animals.get(id)!);

test('what matters is kept, and gives each claim the probability that the whole gives it', () => {
  const claims = claimsOf(family, 'H');
  expect(claims.map(({ label }) => label)).toEqual(['Pastel', expect.stringMatching(/het Clown$/)]);
  const found = essentialPedigree(compilePedigree(family), 'H', claims)!;
  // By hand: six young of a clown without it leave the sire (1/2) (1/2)^6 = 1/128 against 1/2: 1/65; H inherits half.
  expect(found.p).toEqual([expect.closeTo(1, 9), expect.closeTo(1 / 130, 7)]);
  const ids = found.pedigree.animals.map(({ id }) => id);
  expect(ids).toContain('K5');
  for (const stranger of ['X', 'Y', 'Z']) expect(ids).not.toContain(stranger);
});

test('the part, written as a document and read back, gives the same', () => {
  const claims = claimsOf(family, 'H');
  const { pedigree, p } = essentialPedigree(compilePedigree(family), 'H', claims)!;
  const document = JSON.parse(JSON.stringify(writePedigree(pedigree, (id) => `urn:${id}`))) as unknown;
  const posterior = infer(parsePedigree(document)).animals.get('urn:H')!;
  claims.forEach(({ locus, genotypes }, i) => {
    const set = new Set(genotypes.map(String));
    const sum = posterior
      .get(locus)!
      .reduce((total, { genotype, p: one }) => (set.has(String(genotype)) ? total + one : total), 0);
    expect(sum).toBeCloseTo(p[i]!, 9);
  });
});

test('where the sire is open, other genes that tell him stay', () => {
  const open: RecordedAnimal[] = [
    founder('D', 'female', 'normal'),
    founder('A', 'male', 'clown'),
    founder('B', 'male', 'super pastel'),
    young('H', 'D', ['A', 'B'], 'pastel'),
  ];
  const claims = claimsOf(open, 'H');
  const clown = essentialPedigree(compilePedigree(open), 'H', claims)!;
  expect(clown.pedigree.loci.map(({ id }) => id)).toContain('pastel');
  expect(claims.map(({ label }) => label)).toEqual(['Pastel']);
});

test('records that contradict one another at a claim’s locus give none', () => {
  const clash: RecordedAnimal[] = [
    founder('D', 'female', 'clown'),
    founder('S', 'male', 'clown'),
    young('H', 'D', 'S', 'normal'),
  ];
  const claim = { locus: 'clown', genotypes: [['+', 'clown'] as const] };
  expect(essentialPedigree(compilePedigree(clash), 'H', [claim])).toBeNull();
});

test('a family of more records than are searched is given whole, with all of its records', () => {
  const identified = (id: string, genes: string, sure: 'certain' | 'possible' = 'possible') => ({
    identification: { record: `r-${id}`, genes, sure },
  });
  // Seen with doubt, one in three speaks for a carrier and two against: each moves the odds, and none settles them.
  const animals: RecordedAnimal[] = [
    { id: 'D', sex: 'female', sires: [], ...identified('D', '50% het clown', 'certain') },
    { id: 'S', sex: 'male', sires: [], ...identified('S', 'het clown', 'certain') },
    ...Array.from({ length: 270 }, (_, i): RecordedAnimal => ({
      id: `Y${i}`,
      sex: 'unknown',
      dam: 'D',
      sires: [{ id: 'S', weight: 1 }],
      ...identified(`Y${i}`, i % 3 === 2 ? 'clown' : 'normal'),
    })),
  ];
  const pedigree = compilePedigree(animals);
  const claims = statedClaims(infer(pedigree).animals.get('D')!);
  const { records } = essentialPedigree(pedigree, 'D', claims)!;
  const all = animals.map(({ id }) => ({ record: `r-${id}`, animal: id }));
  expect(new Set(records)).toEqual(new Set(all));
});
