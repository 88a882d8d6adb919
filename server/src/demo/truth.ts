import {
  appearance,
  canonical,
  CATALOGUE,
  canonicalLabel,
  gamete,
  parseGenes,
  toParent,
  viabilityOf,
  type Genotype,
} from '@karyotome/core';
import type { Chance } from './chance.ts';

/** What an animal really carries: locus id -> pair; a male's sex-linked pair is `[X, Y]`. Never written down. */
export type Truth = ReadonlyMap<string, Genotype>;

export function truthOf(genes: string, sex: 'female' | 'male'): Truth {
  const { loci } = toParent(parseGenes(genes), sex);
  return new Map(
    [...loci].map(([id, genotypes]) => [id, genotypes.toSorted((a, b) => b.p - a.p)[0]!.genotype]),
  );
}

function draw(options: readonly (readonly [string, number])[], chance: Chance): string {
  let left = chance.next();
  for (const [allele, p] of options) {
    left -= p;
    if (left < 0) return allele;
  }
  return options.at(-1)![0];
}

/** One hatchling, drawn by the rules of transmission: an egg that does not live is drawn again. */
export function breed(sire: Truth, dam: Truth, sex: 'female' | 'male', chance: Chance): Truth {
  for (;;) {
    const egg = layEgg(sire, dam, sex, chance);
    const lives = [...egg].every(([id, pair]) => viabilityOf(CATALOGUE.locusById(id)!, pair) > 0);
    if (lives) return egg;
  }
}

function layEgg(sire: Truth, dam: Truth, sex: 'female' | 'male', chance: Chance): Truth {
  const ids = new Set([...sire.keys(), ...dam.keys()]);
  return new Map(
    [...ids].map((id) => {
      const locus = CATALOGUE.locusById(id)!;
      const wild: Genotype = ['+', '+'];
      const fromSire = draw(gamete(sire.get(id) ?? wild, 'male', sex, locus), chance);
      const fromDam = draw(gamete(dam.get(id) ?? wild, 'female', sex, locus), chance);
      return [id, locus.sexLinked && sex === 'male' ? [fromDam, fromSire] : canonical(fromSire, fromDam)];
    }),
  );
}

/** What a good eye would say of it: the genes that show. */
export function shownGenes(truth: Truth): string {
  const shown = [...truth].flatMap(([id, genotype]): [string, { genotype: Genotype; p: number }[]][] =>
    appearance(CATALOGUE.locusById(id)!, genotype) === ''
      ? []
      : [[id, [{ genotype: canonical(...genotype), p: 1 }]]],
  );
  return canonicalLabel({ loci: new Map(shown), phases: new Map(), possible: [] });
}
