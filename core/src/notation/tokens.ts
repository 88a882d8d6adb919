/** A piece of a label, and where it stands in the text: `start` up to but not including `end`. */
export interface Token {
  readonly kind: 'word' | 'percent' | 'doubt' | 'joiner' | 'separator' | 'open' | 'close';
  readonly text: string;
  readonly start: number;
  readonly end: number;
}

/** A token that is no bracket, or all that stands between two brackets. */
export type Node = Token | Group;

export interface Group {
  readonly kind: 'group';
  readonly nodes: readonly Node[];
  readonly start: number;
  readonly end: number;
}

/*
 * In this order: a percentage ("66%", "50 percent"), a count of sexes ("1.0", "0.1.2"; it says nothing about genes), a
 * percentage without its sign before "het" ("66 het"), brackets, what joins two genes under one word, what separates
 * them, a mark of doubt, and words: letters and digits. Whatever else stands between words separates nothing.
 */
const PIECES = new RegExp(
  [
    String.raw`(?<percent>\d+(?:[.,]\d+)?)\s*(?:%|per\s?cent\b|pct\b)`,
    String.raw`(?<sexes>(?<![\d.])\d\.\d(?:\.\d)?(?![\w%.]))`,
    String.raw`(?<bare>\d+(?:\.\d+)?)(?=[\s-]*(?:poss?|possible)?[\s.-]*hets?\b)`,
    String.raw`(?<open>[([{])`,
    String.raw`(?<close>[)\]}])`,
    String.raw`(?<joiner>[&+/]|\b(?:and|n|x)\b(?![-.]))`,
    String.raw`(?<separator>[,;|·•]+|\r?\n)`,
    String.raw`(?<doubt>\?)`,
    String.raw`(?<word>[\p{L}\p{N}]+(?:['’][\p{L}]+)*)`,
  ].join('|'),
  'giu',
);

/**
 * Cuts a label into pieces. Hyphens and dots only part words.
 *
 * "66%het Clown" is a percentage and two words.
 */
export function tokenize(text: string): Token[] {
  const tokens: Token[] = [];
  for (const match of text.matchAll(PIECES)) {
    const { percent, bare, sexes, open, close, joiner, separator, doubt } = match.groups!;
    const start = match.index;
    const place = { start, end: start + match[0].length };
    if (sexes !== undefined) continue;
    if (percent !== undefined || bare !== undefined)
      tokens.push({ kind: 'percent', text: (percent ?? bare)!.replace(',', '.'), ...place });
    else if (doubt) tokens.push({ kind: 'doubt', text: doubt, ...place });
    else if (open) tokens.push({ kind: 'open', text: open, ...place });
    else if (close) tokens.push({ kind: 'close', text: close, ...place });
    else if (joiner) tokens.push({ kind: 'joiner', text: joiner, ...place });
    else if (separator) tokens.push({ kind: 'separator', text: separator, ...place });
    else if (/^het$/i.test(match[0]) && text[place.end] === ':')
      // "Het: Clown, Pied" is a list of all that is carried.
      tokens.push({ kind: 'word', text: 'hets', ...place });
    else tokens.push(...splitWord(match[0], start));
  }
  return tokens;
}

/** "66het" and "50poss" are two words each; a modifier written together with its gene is found by the reader. */
function splitWord(text: string, start: number): Token[] {
  const glued = /^(\d+)(poss?|possible|hets?|ph)$/i.exec(text);
  if (!glued) return [{ kind: 'word', text, start, end: start + text.length }];
  const cut = start + glued[1]!.length;
  return [
    { kind: 'percent', text: glued[1]!, start, end: cut },
    { kind: 'word', text: glued[2]!, start: cut, end: start + text.length },
  ];
}

/** Nests what stands in brackets. A bracket that is not closed ends with the text; one that was not opened is dropped. */
export function nest(tokens: readonly Token[]): Node[] {
  const stack: { nodes: Node[]; start: number }[] = [{ nodes: [], start: 0 }];
  const close = (end: number): void => {
    const { nodes, start } = stack.pop()!;
    stack.at(-1)!.nodes.push({ kind: 'group', nodes, start, end });
  };
  for (const token of tokens) {
    if (token.kind === 'open') stack.push({ nodes: [], start: token.start });
    else if (token.kind !== 'close') stack.at(-1)!.nodes.push(token);
    else if (stack.length > 1) close(token.end);
  }
  while (stack.length > 1) close(tokens.at(-1)!.end);
  return stack[0]!.nodes;
}
