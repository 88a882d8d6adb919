import type { BenchView } from '@karyotome/contract';
import {
  multinomialTest,
  parseGenes,
  shownByReading,
  type Catalogue,
  type VisibleOutcome,
} from '@karyotome/core';

/**
 * Holds what a clutch was identified as against the pairing's odds: the kinds that were seen, and everything else as one
 * kind, by the exact multinomial test.
 *
 * @param seen - the genes of each identified hatchling
 */
export function clutchFit(
  outcomes: readonly VisibleOutcome[],
  seen: readonly string[],
  catalogue: Catalogue,
): BenchView['fit'] {
  if (seen.length === 0) return null;
  const counts = new Map<VisibleOutcome, number>();
  let others = 0;
  for (const genes of seen) {
    const shown = shownByReading(parseGenes(genes, catalogue), catalogue);
    const outcome = outcomes.find((one) => looksLike(one, shown));
    if (outcome) counts.set(outcome, (counts.get(outcome) ?? 0) + 1);
    else others++;
  }
  const kinds = [...counts].map(([{ label, p }, count]) => ({ label, p, seen: count }));
  const rest = Math.max(0, 1 - kinds.reduce((sum, { p }) => sum + p, 0));
  if (rest > 1e-9 || others > 0)
    kinds.push({ label: 'Anything else', p: rest > 1e-9 ? rest : 0, seen: others });
  const total = kinds.reduce((sum, { p }) => sum + p, 0);
  const { p, expected } = multinomialTest(
    kinds.map((kind) => kind.seen),
    kinds.map((kind) => kind.p / total),
  );
  return {
    p,
    kinds: kinds.map((kind, i) => ({ label: kind.label, expected: expected[i]!, seen: kind.seen })),
  };
}

function looksLike({ appearance }: VisibleOutcome, shown: Readonly<Record<string, string>>): boolean {
  const loci = new Set([...Object.keys(appearance), ...Object.keys(shown)]);
  return [...loci].every((locus) => (appearance[locus] ?? '') === (shown[locus] ?? ''));
}
