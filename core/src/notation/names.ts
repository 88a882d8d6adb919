import type { Catalogue } from '../catalogue/catalogue.ts';
import { squeeze, type Meaning } from '../catalogue/words.ts';
import type { Group, Node, Token } from './tokens.ts';

/** A name found in a text: what it can mean, and how many nodes it takes. */
export interface FoundName {
  readonly meanings: readonly Meaning[];
  readonly length: number;
  readonly start: number;
  readonly end: number;
}

const isWord = (node: Node | undefined): node is Token => node?.kind === 'word';

/** The meanings of words written with or without blanks and hyphens, or in the plural ("Pieds"). */
function meaningsOf(words: readonly string[], catalogue: Catalogue): readonly Meaning[] | undefined {
  const key = squeeze(words.join(''));
  return (
    catalogue.names.get(key) ??
    (key.length > 3 && key.endsWith('s') ? catalogue.names.get(key.slice(0, -1)) : undefined)
  );
}

/** The longest name that starts at `at`; a line in brackets belongs to its gene: "Axanthic (River)". */
export function findName(nodes: readonly Node[], at: number, catalogue: Catalogue): FoundName | null {
  let run = 0;
  while (run < catalogue.longestName && isWord(nodes[at + run])) run++;
  for (let length = run; length > 0; length--) {
    const tokens = nodes.slice(at, at + length) as Token[];
    const words = tokens.map(({ text }) => text);
    const meanings = meaningsOf(words, catalogue);
    if (!meanings) continue;
    const start = tokens[0]!.start;
    const found = { meanings, length, start, end: tokens.at(-1)!.end };
    const line = meanings.length > 1 ? wordsOnly(nodes[at + length]) : null;
    if (!line) return found;
    const inLine = meaningsOf([...words, ...line], catalogue) ?? meaningsOf([...line, ...words], catalogue);
    return inLine ? { meanings: inLine, length: length + 1, start, end: nodes[at + length]!.end } : found;
  }
  return null;
}

/** The words of a bracket that holds nothing else. */
export function wordsOnly(node: Node | undefined): string[] | null {
  if (node?.kind !== 'group' || node.nodes.length === 0) return null;
  return node.nodes.every(isWord) ? (node as Group).nodes.map((word) => (word as Token).text) : null;
}

/** How a meaning is named where it is offered as a choice. */
export function nameOf(meaning: Meaning, catalogue: Catalogue): string {
  switch (meaning.kind) {
    case 'allele':
      return catalogue.alleleName(meaning.allele);
    case 'pair':
      return catalogue.pairName(meaning.alleles);
    case 'combination':
      return meaning.genes;
    case 'collective':
      return meaning.pairs.map((pair) => catalogue.pairName(pair)).join(' or ');
    case 'wild':
      return 'Normal';
  }
}
