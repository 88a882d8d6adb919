import type { Pedigree, PedigreeAnimal } from '../src/pedigree/document.ts';
import { seededRandom } from '../src/numeric/random.ts';

/**
 * A line bred in on itself: a few founders that may carry, every later animal from two random earlier ones, and few of them
 * looked at. The more animals and the fewer calls, the wider the exact tables.
 */
export function tangledLine({ animals: count = 60, seed = 1, identified = 0.3, founders = 6 }): Pedigree {
  const random = seededRandom(seed);
  const animals: PedigreeAnimal[] = [];
  const pick = (sex: string): string => {
    const list = animals.slice(-40).filter((animal) => animal.sex === sex);
    return list[Math.floor(random() * list.length)]!.id;
  };
  for (let i = 0; i < count; i++) {
    const sex = i % 2 === 0 ? ('female' as const) : ('male' as const);
    if (i < founders) {
      animals.push({
        id: `F${i}`,
        sex,
        founder: {
          c: [
            { genotype: ['+', '+'], p: 0.5 },
            { genotype: ['+', 'c'], p: 0.5 },
          ],
        },
      });
      continue;
    }
    const seen = random() < identified;
    animals.push({
      id: `A${i}`,
      sex,
      dam: pick('female'),
      sires: [{ id: pick('male'), weight: 1 }],
      calls: seen
        ? [
            {
              locus: 'c',
              is: [
                ['+', '+'],
                ['+', 'c'],
              ],
              error: 0.05,
            },
          ]
        : [],
    });
  }
  return { loci: [{ id: 'c', alleles: ['c'] }], unrecorded: 0.01, animals };
}
