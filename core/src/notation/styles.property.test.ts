import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CATALOGUE } from '../catalogue/catalogue.ts';
import { squeeze } from '../catalogue/words.ts';
import { isRecessive, type Allele, type Locus } from '../loci/locus.ts';
import { parseGenes } from './parse.ts';

/* Every gene of the catalogue, through every style of writing what is said of it, comes back the same. */

const GENES = CATALOGUE.loci.flatMap((locus) =>
  locus.alleles.map((allele) => ({ locus, allele, recessive: isRecessive(locus, allele.id) })),
);
/** Names that only mean their gene: "Axanthic A" does, and so do all that the catalogue writes. */
const NAMES = GENES.filter(({ allele }) => CATALOGUE.names.get(squeeze(allele.name))?.length === 1);

const WRITINGS: readonly ((name: string) => string)[] = [
  (name) => name,
  (name) => name.toUpperCase(),
  (name) => name.toLowerCase(),
  (name) => name.replaceAll(' ', '-'),
  (name) => name.replaceAll(' ', ''),
  (name) => `1.0 ${name}`,
  (name) => `  ${name}  `,
];
const read = (text: string, locus: Locus) => {
  const reading = parseGenes(text);
  expect(reading.unknown, text).toEqual([]);
  return { reading, genotypes: reading.loci.get(locus.id) };
};

describe('every gene of the catalogue', () => {
  test('is all but those with a shared name', () => expect(NAMES.length).toBe(GENES.length));

  test.each(WRITINGS.map((write, at) => [at, write] as const))('is read in writing %i', (_at, write) => {
    for (const { locus, allele, recessive } of NAMES) {
      const { genotypes } = read(write(allele.name), locus);
      const whole = recessive ? [allele.id, allele.id] : ['+', allele.id];
      expect(genotypes, allele.name).toEqual([{ genotype: whole, p: 1 }]);
    }
  });

  const said = (
    says: (name: string) => string,
    check: (allele: Allele, locus: Locus, text: string) => void,
  ) => {
    for (const { locus, allele, recessive } of NAMES) if (recessive) check(allele, locus, says(allele.name));
  };

  test.each(['het %', 'Het-%', '100% het %', '100 het %', '% (het)', 'heterozygous %', 'het (%)', '(het %)'])(
    'is carried as "%s"',
    (style) => {
      said(
        (name) => style.replace(/%(?! het)/, name),
        (allele, locus, text) =>
          expect(read(text, locus).genotypes, text).toEqual([{ genotype: ['+', allele.id], p: 1 }]),
      );
    },
  );

  test.each([
    '66% het @',
    '66 het @',
    '66%het @',
    '66 percent het @',
    '66% @',
    '@ (66% het)',
    '66% poss het @',
  ])('is carried with two in three as "%s"', (style) => {
    said(
      (name) => style.replace('@', name),
      (allele, locus, text) =>
        expect(read(text, locus).genotypes, text).toEqual([
          { genotype: ['+', '+'], p: expect.closeTo(1 / 3, 12) },
          { genotype: ['+', allele.id], p: expect.closeTo(2 / 3, 12) },
        ]),
    );
  });

  test.each(['(@)', '[@]', 'poss @', 'poss. @', 'possible @', '@?', '@ (possible)'])(
    'is possible as "%s"',
    (style) => {
      for (const { locus, allele } of NAMES) {
        const text = style.replace('@', allele.name);
        const { reading, genotypes } = read(text, locus);
        expect(genotypes, text).toBeUndefined();
        expect(reading.possible, text).toEqual([allele.id]);
      }
    },
  );

  test('any three of different loci are read with any separator between them', () => {
    const three = fc.shuffledSubarray([...NAMES], { minLength: 3, maxLength: 3 });
    const separator = fc.constantFrom(', ', '; ', ' / ', ' + ', '/', ' & ', ' and ', ' | ', ' · ');
    fc.assert(
      fc.property(three, separator, (genes, between) => {
        if (new Set(genes.map(({ locus }) => locus.id)).size < 3) return;
        const text = genes.map(({ allele }) => allele.name).join(between);
        const reading = parseGenes(text);
        expect(reading.unknown, text).toEqual([]);
        expect([...reading.loci.keys()].toSorted(), text).toEqual(
          genes.map(({ locus }) => locus.id).toSorted(),
        );
      }),
      { numRuns: 400 },
    );
  });
});
