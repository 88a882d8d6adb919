import type { BenchView } from '@karyotome/contract';
import { phenotypeLabel, multinomialTest, shownBy, type Catalogue } from '@karyotome/core';

/**
 * Holds what a clutch was identified as against the pairing's odds, locus by locus, each by the exact multinomial test over
 * everything that the pair can show there. The kinds of a locus are fixed before anybody looks; testing the very kinds that
 * turned up would call every clutch a wonder.
 *
 * Over all loci the smallest probability counts, times their number (Bonferroni; Dunn 1961, JASA 56, 52-64).
 *
 * @param pair - what the pair's young look like: locus -> phenotype -> probability
 * @param seen - the genes of each identified hatchling
 */
export function clutchFit(
  pair: ReadonlyMap<string, ReadonlyMap<string, number>>,
  seen: readonly string[],
  catalogue: Catalogue,
): BenchView['fit'] {
  if (seen.length === 0) return null;
  const shown = seen.map((genes) => shownBy(genes, catalogue));
  const loci = new Set([...pair.keys(), ...shown.flatMap((one) => Object.keys(one))]);
  const tested = [...loci]
    .toSorted(catalogue.compareLoci)
    .flatMap((locus) => testLocus(locus, pair.get(locus) ?? WILD_ALONE, shown, catalogue));
  if (tested.length === 0) return null;
  const p = Math.min(1, tested.length * Math.min(...tested.map((one) => one.p)));
  return { p, looked: seen.length, genes: tested.flatMap(({ rows }) => rows) };
}

/** Of a gene that no parent has. */
const WILD_ALONE: ReadonlyMap<string, number> = new Map([['', 1]]);

type Row = NonNullable<BenchView['fit']>['genes'][number];

function testLocus(
  locus: string,
  odds: ReadonlyMap<string, number>,
  shown: readonly Readonly<Record<string, string>>[],
  catalogue: Catalogue,
): { p: number; rows: Row[] }[] {
  const counts = new Map<string, number>();
  for (const phenotype of shown.map((one) => one[locus] ?? ''))
    counts.set(phenotype, (counts.get(phenotype) ?? 0) + 1);
  const kinds = [...new Set([...odds.keys(), ...counts.keys()])].toSorted();
  // What every one of them must show is no test of anything.
  if (kinds.length < 2) return [];
  const { p, expected } = multinomialTest(
    kinds.map((phenotype) => counts.get(phenotype) ?? 0),
    kinds.map((phenotype) => odds.get(phenotype) ?? 0),
  );
  const rows = kinds.flatMap((phenotype, i): Row[] =>
    phenotype === ''
      ? []
      : [
          {
            label: phenotypeLabel({ [locus]: phenotype }, catalogue),
            expected: expected[i]!,
            seen: counts.get(phenotype) ?? 0,
            p,
          },
        ],
  );
  return [{ p, rows }];
}
