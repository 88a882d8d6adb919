import uFuzzy from '@leeoniya/ufuzzy';

/** The beginnings of words, with one slip in a word of five letters or more; digits are taken as they are. */
const finder = new uFuzzy({ intraMode: 1, interLft: 1 });

const wordsOf = (text: string): string[] => text.trim().toLowerCase().split(/\s+/);

/** What all words are found in, in any order. First where most of them stand whole, then as they were given. */
export function findIn<T extends { readonly text: string }>(all: readonly T[], typed: string): T[] {
  if (typed.trim() === '') return [];
  const texts = all.map(({ text }) => text);
  const words = wordsOf(typed);
  let found: readonly number[] = texts.map((_, at) => at);
  for (const word of words) found = finder.filter(texts, word, [...found]) ?? [];
  const ranked = found.map((at) => {
    const own = new Set(wordsOf(texts[at]!));
    return { one: all[at]!, whole: words.filter((word) => own.has(word)).length };
  });
  return ranked.toSorted((a, b) => b.whole - a.whole).map(({ one }) => one);
}
