import type { Catalogue } from '../catalogue/catalogue.ts';
import { foldPhrase, type Meaning } from '../catalogue/words.ts';

/** More than so many slips apart, one is not meant by the other. */
const MOST_SLIPS = 2;

/** Up to three phrases within two typing slips of the word, nearest first. */
export function suggestionsFor(word: string, catalogue: Catalogue): string[] {
  const folded = foldPhrase(word);
  if (folded.length < 3) return [];
  return (
    [...catalogue.phrases.entries()]
      // As many slips as the lengths differ by are needed at least: this spares comparing, above all for long words.
      .filter(([phrase]) => Math.abs(phrase.length - folded.length) <= MOST_SLIPS)
      .map(([phrase, meanings]) => ({ phrase, meanings, slips: editDistance(folded, phrase) }))
      .filter(({ slips, phrase }) => slips <= (phrase.length < 5 ? 1 : MOST_SLIPS))
      .toSorted((a, b) => a.slips - b.slips || (a.phrase < b.phrase ? -1 : 1))
      .flatMap(({ phrase, meanings }) =>
        meanings.map((m) => (m.kind === 'allele' ? nameOf(m, catalogue) : phrase)),
      )
      .filter((name, index, all) => all.indexOf(name) === index)
      .slice(0, 3)
  );
}

/** Levenshtein's distance: insertions, deletions and substitutions (Wagner & Fischer 1974, J. ACM 21). */
function editDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const substitution = row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1);
      next.push(Math.min(substitution, row[j]! + 1, next[j - 1]! + 1));
    }
    row = next;
  }
  return row[b.length]!;
}

export function nameOf(meaning: Meaning, catalogue: Catalogue): string {
  if (meaning.kind === 'allele') return catalogue.alleleName(meaning.allele);
  return meaning.kind === 'pair' ? meaning.alleles.join(' ') : meaning.kind;
}
