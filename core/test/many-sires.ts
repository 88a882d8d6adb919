import { seededRandom } from '../src/numeric/random.ts';
import type { Call, Pedigree, PedigreeAnimal } from '../src/pedigree/document.ts';

const LOCI = 8;

/**
 * A collection whose clutches have two or three possible sires: recessive loci, founders of which half may carry, and young that
 * show nothing. Which sire it was ties all loci at which dam and sires may carry.
 */
export function manySires({ dams = 5, males = 4, young = 5, seed = 1 }): Pedigree {
  const random = seededRandom(seed);
  const loci = Array.from({ length: LOCI }, (_, l) => ({ id: `r${l}`, alleles: [`r${l}`] }));
  const founder = (): PedigreeAnimal['founder'] =>
    Object.fromEntries(
      loci
        .filter(() => random() < 0.5)
        .map(({ id }) => [
          id,
          [
            { genotype: ['+', '+'] as const, p: 0.5 },
            { genotype: ['+', id] as const, p: 0.5 },
          ],
        ]),
    );
  const calls: Call[] = loci.map(({ id }) => ({
    locus: id,
    is: [
      ['+', '+'],
      ['+', id],
    ],
    error: 0,
  }));
  const animals: PedigreeAnimal[] = [
    ...Array.from({ length: dams }, (_, n) => ({ id: `F${n}`, sex: 'female' as const, founder: founder()! })),
    ...Array.from({ length: males }, (_, n) => ({ id: `M${n}`, sex: 'male' as const, founder: founder()! })),
  ];
  for (let d = 0; d < dams; d++) {
    const first = Math.floor(random() * males);
    const sires = [...new Set([first, (first + 1) % males, Math.floor(random() * males)])].map((m, k) => ({
      id: `M${m}`,
      weight: k === 0 ? 3 : 1,
    }));
    for (let n = 0; n < young; n++)
      animals.push({ id: `Y${d}.${n}`, sex: n % 2 ? 'male' : 'female', dam: `F${d}`, sires, calls });
  }
  return { loci, unrecorded: 0.01, animals };
}
