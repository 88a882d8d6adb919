import { allGenotypes, canonical, genotypeKey, type Genotype } from '../loci/genotype.ts';
import type { Call, PedigreeAnimal, PedigreeLocus } from './document.ts';

/**
 * How a call that is wrong with chance `error` weighs each genotype outside it, where it is as likely to have been any of
 * the other looks: `error` is shared among them, and each genotype of a look has the look's share.
 *
 * @param looks - how many looks there are besides the one that was called; 0 where it was the only one
 */
export const outsideShare = (error: number, looks: number): number => (looks > 0 ? error / looks : error);

/**
 * A call by `error` alone, as a document writes it: the same likelihood but for a factor, so the same posterior.
 */
export function plainError({ error = 0, outside = error }: Call): number {
  return outside === error ? error : outside / (1 - error + outside);
}

/**
 * Shares the error of calls that ask for it (`perLook`) among the other looks of their locus. A document says nothing of how
 * genes show: looks are what its calls tell apart, the classes of genotypes that are in the same calls.
 *
 * @param shared - the calls that ask for it
 */
export function shareAmongLooks(
  loci: readonly PedigreeLocus[],
  animals: readonly PedigreeAnimal[],
  shared: ReadonlySet<Call>,
): PedigreeAnimal[] {
  const outside = new Map<Call, number>();
  for (const locus of loci) {
    const calls = animals.flatMap((animal) => (animal.calls ?? []).filter((call) => call.locus === locus.id));
    if (!calls.some((call) => shared.has(call))) continue;
    const looks = looksOf(locus, calls);
    for (const call of calls) {
      if (!shared.has(call)) continue;
      const called = new Set(call.is.map(keyOf));
      const others = new Set([...looks].flatMap(([genotype, look]) => (called.has(genotype) ? [] : look)));
      outside.set(call, outsideShare(call.error ?? 0, others.size));
    }
  }
  return animals.map((animal) =>
    animal.calls?.some((call) => outside.has(call))
      ? {
          ...animal,
          calls: animal.calls.map((call) =>
            outside.has(call) ? { ...call, outside: outside.get(call)! } : call,
          ),
        }
      : animal,
  );
}

const keyOf = ([a, b]: Genotype): string => genotypeKey(canonical(a, b));

/** Genotype -> its look: which of the different calls of the locus name it. */
function looksOf({ alleles }: PedigreeLocus, calls: readonly Call[]): Map<string, string> {
  const sets = new Map(calls.map(({ is }) => [is.map(keyOf).toSorted().join(), new Set(is.map(keyOf))]));
  return new Map(
    allGenotypes(alleles).map((genotype) => {
      const key = keyOf(genotype);
      return [key, [...sets.values()].map((set) => (set.has(key) ? '1' : '0')).join('')];
    }),
  );
}
