import fc from 'fast-check';
import { allGenotypes } from '../src/loci/genotype.ts';
import type { Call, Pedigree, PedigreeAnimal, PedigreeLocus } from '../src/pedigree/document.ts';

const LOCI: readonly PedigreeLocus[] = [
  { id: 'c', alleles: ['c'] },
  { id: 'yb', alleles: ['y', 'a'] },
  { id: 'ban', alleles: ['b'], sexLinked: true, recombination: 0.07 },
  { id: 'link', alleles: ['l'], sexLinked: true, recombination: 0 },
];

const MOST_STATES = 60_000;

interface Draw {
  readonly dam: number;
  readonly sires: readonly number[];
  readonly missing: 'dam' | 'sire' | 'none';
  readonly sex: PedigreeAnimal['sex'];
  readonly calls: readonly (readonly [number, number, number])[];
}

const draw = (errors: readonly number[]): fc.Arbitrary<Draw> =>
  fc.record({
    dam: fc.nat(9),
    sires: fc.uniqueArray(fc.nat(9), { minLength: 1, maxLength: 3 }),
    missing: fc.constantFrom(
      'dam' as const,
      'sire' as const,
      'none' as const,
      'none' as const,
      'none' as const,
    ),
    sex: fc.constantFrom('female' as const, 'male' as const, 'unknown' as const),
    calls: fc.array(fc.tuple(fc.nat(3), fc.integer({ min: 1, max: 62 }), fc.constantFrom(...errors)), {
      maxLength: 2,
    }),
  });

/**
 * Small random pedigrees with inbreeding loops, one to three candidate sires, missing parents, soft and set-valued calls,
 * unknown sex and sex-linked loci.
 *
 * @param errors - of the calls; with 0 among them the calls can contradict one another
 * @param young - how many animals with parents there are at most
 */
export function anyPedigree(errors: readonly number[], young = 3, lociAtMost = 2): fc.Arbitrary<Pedigree> {
  return fc
    .record({
      loci: fc.uniqueArray(fc.nat(LOCI.length - 1), { minLength: 1, maxLength: lociAtMost }),
      founders: fc.array(fc.array(fc.constantFrom(0, 0, 1, 3), { minLength: 9, maxLength: 9 }), {
        minLength: 3,
        maxLength: 3,
      }),
      unrecorded: fc.constantFrom(0, 0.01, 0.2),
      young: fc.array(draw(errors), { minLength: 1, maxLength: young }),
    })
    .map(({ loci: chosen, founders, unrecorded, young: draws }) => {
      const loci = chosen.map((at) => LOCI[at]!);
      const animals: PedigreeAnimal[] = founders.map((weights, i) => ({
        id: `F${i}`,
        sex: i === 0 ? 'female' : 'male',
        founder: Object.fromEntries(loci.map((locus) => [locus.id, distribution(locus, weights, i > 0)])),
      }));
      // The slow judge walks every joint state: a pedigree that would take it too long loses its last young.
      let states = 1;
      for (const { founder } of animals) for (const list of Object.values(founder!)) states *= list.length;
      draws.forEach((one, i) => {
        states *= loci.reduce((product, { alleles }) => product * allGenotypes(alleles).length, 1);
        if (one.sex === 'unknown') states *= 2;
        states *= one.sires.length;
        if (i > 0 && states > MOST_STATES) return;
        const dams = animals.filter((animal) => animal.sex === 'female');
        const males = animals.filter((animal) => animal.sex === 'male');
        const sires = [...new Set(one.sires.map((n) => males[n % males.length]!.id))];
        animals.push({
          id: `Y${i}`,
          sex: one.sex,
          ...(one.missing === 'dam' ? {} : { dam: dams[one.dam % dams.length]!.id }),
          ...(one.missing === 'sire' ? {} : { sires: sires.map((id, k) => ({ id, weight: k + 1 })) }),
          calls: one.calls.map(([at, set, error]) => callOf(loci[at % loci.length]!, set, error)),
        });
      });
      return { loci, unrecorded, animals };
    });
}

function distribution(locus: PedigreeLocus, weights: readonly number[], male: boolean) {
  const alleles = ['+', ...locus.alleles];
  const pairs =
    locus.sexLinked && male
      ? alleles.flatMap((x) => alleles.map((y) => [x, y] as const))
      : allGenotypes(locus.alleles);
  const drawn = pairs.map((_, k) => weights[k]! + (k === 0 ? 1 : 0));
  const sum = drawn.reduce((a, b) => a + b, 0);
  return pairs.map((genotype, k) => ({ genotype, p: drawn[k]! / sum })).filter(({ p }) => p > 0);
}

function callOf(locus: PedigreeLocus, set: number, error: number): Call {
  const genotypes = allGenotypes(locus.alleles);
  const is = genotypes.filter((_, at) => (set >> at) & 1);
  return { locus: locus.id, is: is.length > 0 ? is : [genotypes[set % genotypes.length]!], error };
}
