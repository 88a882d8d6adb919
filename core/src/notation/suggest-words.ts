import type { Catalogue } from '../catalogue/catalogue.ts';
import { squeeze } from '../catalogue/words.ts';
import { nameOf } from './names.ts';

/** More than so many slips apart, one is not meant by the other. */
const MOST_SLIPS = 2;
const MOST_SUGGESTIONS = 3;

/** Up to three names within two typing slips of the word, nearest first. Blanks and hyphens count for nothing. */
export function suggestionsFor(word: string, catalogue: Catalogue): string[] {
  const typed = squeeze(word);
  if (typed.length < 3) return [];
  return (
    [...catalogue.names.entries()]
      // As many slips as the lengths differ by are needed at least: this spares comparing, above all for long words.
      .filter(([name]) => Math.abs(name.length - typed.length) <= MOST_SLIPS)
      .map(([name, meanings]) => ({ name, meanings, slips: editDistance(typed, name) }))
      .filter(({ slips, name }) => slips <= (name.length < 5 ? 1 : MOST_SLIPS))
      .toSorted((a, b) => a.slips - b.slips || (a.name < b.name ? -1 : 1))
      .flatMap(({ name, meanings }) =>
        meanings.map((meaning) =>
          meaning.kind === 'combination' ? catalogue.spellingOf(name) : nameOf(meaning, catalogue),
        ),
      )
      .filter((name, index, all) => all.indexOf(name) === index)
      .slice(0, MOST_SUGGESTIONS)
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
