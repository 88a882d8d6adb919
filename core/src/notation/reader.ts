import type { Catalogue } from '../catalogue/catalogue.ts';
import { squeeze } from '../catalogue/words.ts';
import { findName, wordsOnly, type FoundName } from './names.ts';
import {
  gluedModifier,
  LONGEST_MODIFIER,
  modifierOf,
  percentToProbability,
  type Modifiers,
} from './modifiers.ts';
import { Placement, type Place } from './placement.ts';
import { suggestionsFor } from './suggest-words.ts';
import { nest, tokenize, type Group, type Node, type Token } from './tokens.ts';

/** Words that say nothing about genes. */
const FILLERS = new Set(['for', 'with', 'the', 'gene', 'genes', 'morph', 'ball', 'python', 'male', 'female']);

/** The most words that one typing slip is looked for in together: "Bumbel Bee". */
const MOST_SLIPPED_WORDS = 3;

/** Modifiers that were read and wait for their gene. */
interface Pending extends Place {
  readonly modifiers: Modifiers;
}

/** What was last said to be carried or possible, and for how many of the following genes it surely holds. */
interface List {
  readonly modifiers: Modifiers;
  left: number;
  readonly place: Place;
}

/** Catalogue -> a combination's genes -> what they say: asked for several times for each combination in a text. */
const EXPANSIONS = new WeakMap<Catalogue, Map<string, Reader>>();

/** Reads the pieces of a label from left to right, and hands each gene to the placement with what holds for it. */
export class Reader extends Placement {
  private pending: Pending | null = null;
  private list: List | null = null;
  /** "And", "/" or the like stands before the next gene. */
  private isJoined = false;
  private inBracket = false;
  /** What was said before the bracket holds for all in it. */
  private inherited: Modifiers | null = null;
  /** Whether anything but genes and "super" was read. */
  hasModifiers = false;

  constructor(text: string, catalogue: Catalogue) {
    super(text, catalogue);
  }

  readAll(nodes: readonly Node[]): void {
    this.read(nodes);
    this.endOfList();
  }

  protected expand(genes: string): Reader {
    let known = EXPANSIONS.get(this.catalogue);
    if (!known) EXPANSIONS.set(this.catalogue, (known = new Map()));
    let inner = known.get(genes);
    if (!inner) {
      inner = new Reader(genes, this.catalogue);
      inner.readAll(nest(tokenize(genes)));
      known.set(genes, inner);
    }
    return inner;
  }

  private read(nodes: readonly Node[]): void {
    for (let at = 0; at < nodes.length;) at += this.step(nodes, at);
    this.dangling();
  }

  /** Handles what starts at `at`; returns how many nodes it took. */
  private step(nodes: readonly Node[], at: number): number {
    const node = nodes[at]!;
    switch (node.kind) {
      case 'group':
        this.readGroup(node);
        return 1;
      case 'percent':
        this.percent(node);
        return 1;
      case 'doubt':
        this.modify({ possible: true }, node, true);
        return 1;
      case 'joiner':
        this.isJoined = true;
        return 1;
      case 'separator':
        this.dangling();
        this.isJoined = false;
        return 1;
      default:
        return this.readWord(nodes, at);
    }
  }

  private readWord(nodes: readonly Node[], at: number): number {
    const token = nodes[at] as Token;
    const word = token.text.toLowerCase();
    if (word === 'or') {
      if (this.inBracket) this.isJoined = true;
      else this.beginAlternative(token);
      return 1;
    }
    const name = findName(nodes, at, this.catalogue);
    if (name) return this.readName(name, nodes, at);
    for (let length = LONGEST_MODIFIER; length > 0; length--) {
      const tokens = nodes.slice(at, at + length);
      if (tokens.length < length || tokens.some(({ kind }) => kind !== 'word')) continue;
      const modifiers = modifierOf(squeeze((tokens as Token[]).map(({ text }) => text).join('')));
      if (!modifiers) continue;
      this.modify(modifiers, { start: token.start, end: tokens.at(-1)!.end });
      return length;
    }
    const split = this.splitGlued(token, nodes, at);
    if (split) {
      this.modify(split.modifiers, token);
      return this.readName(split.name, nodes, at);
    }
    return FILLERS.has(word) ? 1 : this.readUnknown(nodes, at);
  }

  private splitGlued(token: Token, nodes: readonly Node[], at: number) {
    const glued = gluedModifier(token.text.toLowerCase());
    if (!glued) return null;
    const rest = { ...token, text: token.text.slice(glued.length), start: token.start + glued.length };
    const name = rest.text === '' ? null : findName([rest, ...nodes.slice(at + 1)], 0, this.catalogue);
    return name ? { modifiers: glued.modifiers, name } : null;
  }

  /** The longest run of words that is nearly a name is asked about as one. */
  private readUnknown(nodes: readonly Node[], at: number): number {
    for (let length = MOST_SLIPPED_WORDS; length > 0; length--) {
      const tokens = nodes.slice(at, at + length) as Token[];
      if (tokens.length < length || tokens.some(({ kind }) => kind !== 'word')) continue;
      const isOneWord = length === 1;
      if (!isOneWord && tokens.slice(1).some((_, i) => this.isSure(nodes, at + 1 + i))) continue;
      const suggestions = suggestionsFor(tokens.map(({ text }) => text).join(' '), this.catalogue);
      if (suggestions.length === 0 && !isOneWord) continue;
      this.report({ start: tokens[0]!.start, end: tokens.at(-1)!.end }, 'unknown', suggestions);
      // What was said of a word that is not known holds for nothing else.
      this.pending = null;
      return length;
    }
    return 1;
  }

  private isSure(nodes: readonly Node[], at: number): boolean {
    return findName(nodes, at, this.catalogue)?.meanings.length === 1;
  }

  private percent(token: Token): void {
    const percent = Number(token.text);
    if (percent > 100) this.report(token, 'unknown', []);
    else this.modify({ chance: percentToProbability(percent) }, token);
  }

  /** @param mayFollow - it may stand behind its gene: "Fire?", "Banana male-maker" */
  private modify(modifiers: Modifiers, place: Place, mayFollow = modifiers.phase !== undefined): void {
    if (!modifiers.super) this.hasModifiers = true;
    if (mayFollow && !this.pending && this.changeLast(modifiers)) return;
    const { start = place.start, modifiers: before = {} } = this.pending ?? {};
    this.pending = { modifiers: { ...before, ...modifiers }, start, end: place.end };
  }

  private readName(name: FoundName, nodes: readonly Node[], at: number): number {
    const own = this.pending;
    this.pending = null;
    const isJoined = this.isJoined;
    this.isJoined = false;
    const place = { start: own?.start ?? name.start, end: name.end };
    const [meaning] = name.meanings;
    if (name.meanings.length > 1) return this.askWhich(name, own, nodes[at + name.length]);
    if (meaning!.kind === 'wild') {
      if (own) this.report(own, 'dangling', []);
      this.normal = place;
      return name.length;
    }
    const implied = own ? null : this.implied(isJoined, this.countOf(meaning!));
    if (own) this.beginList(own, meaning!);
    else if (!implied && !this.alternative && this.isOfListPerhaps(meaning!)) {
      this.askWhetherCarried(meaning!, this.list!.modifiers, place);
      return name.length;
    }
    const isPossible = this.inBracket && !this.inherited && isBare(own?.modifiers);
    const given = own?.modifiers ?? implied ?? this.inherited ?? {};
    const modifiers = isPossible ? { ...given, possible: true } : given;
    this.place(meaning!, modifiers, place, this.text.slice(name.start, name.end), isPossible);
    return name.length;
  }

  /** A name with several meanings, and the line in brackets after it that nobody knows. */
  private askWhich(name: FoundName, own: Pending | null, next: Node | undefined): number {
    const isLine = wordsOnly(next) !== null && !findName((next as Group).nodes, 0, this.catalogue);
    const place = { start: own?.start ?? name.start, end: isLine ? next!.end : name.end };
    const line = isLine ? ` ${wordsOnly(next)!.join(' ')}` : '';
    const word = this.text.slice(name.start, name.end) + line;
    this.askAbout(name.meanings, own?.modifiers ?? {}, place, word, isLine);
    return name.length + (isLine ? 1 : 0);
  }

  /** What is said of this gene may go on for those that follow. */
  private beginList(own: Pending, meaning: FoundName['meanings'][number]): void {
    const { super: _super, phase: _phase, reach = 1, ...rest } = own.modifiers;
    if (!rest.het && !rest.possible && rest.chance === undefined) return;
    this.endOfList();
    this.list = { modifiers: rest, left: reach - this.countOf(meaning), place: own };
  }

  /** What a list that is under way says of a gene without a word of its own. */
  private implied(isJoined: boolean, count: number): Modifiers | null {
    const { list } = this;
    if (!list) return null;
    if (list.left > 0) {
      list.left -= count;
      return list.modifiers;
    }
    return isJoined ? list.modifiers : null;
  }

  private isOfListPerhaps(meaning: FoundName['meanings'][number]): boolean {
    const isCarried = this.list?.modifiers.het ?? this.list?.modifiers.chance !== undefined;
    return isCarried && this.isRecessiveMeaning(meaning);
  }

  private readGroup(group: Group): void {
    const words = wordsOnly(group) ?? [];
    const alone = this.modifiersOnly(group);
    if (alone && !this.pending) {
      // "Clown (66% het)": it says of the gene before it how it is there.
      this.hasModifiers = true;
      if (!this.changeLast(alone)) this.report(group, 'dangling', []);
      return;
    }
    const inherited = this.pending?.modifiers ?? null;
    this.pending = null;
    if (!inherited && this.explainsLast(group, words)) return;
    const outer = { inBracket: this.inBracket, inherited: this.inherited, list: this.list };
    this.inBracket = !this.namesCollective();
    this.inherited = inherited;
    this.list = null;
    this.read(group.nodes);
    this.endOfList();
    Object.assign(this, outer);
  }

  private modifiersOnly({ nodes }: Group): Modifiers | null {
    let all: Modifiers | null = null;
    for (const node of nodes) {
      const one =
        node.kind === 'percent'
          ? { chance: percentToProbability(Math.min(100, Number(node.text))) }
          : node.kind === 'word'
            ? modifierOf(squeeze(node.text))
            : node.kind === 'doubt'
              ? { possible: true }
              : undefined;
      if (!one) return null;
      all = { ...(all ?? {}), ...one };
    }
    return all;
  }

  /** Whether a bracket only spells out the name before it: "Freeway (YB Asphalt)", "Coral Glow (Banana)". */
  private explainsLast(group: Group, words: readonly string[]): boolean {
    if (!this.last || this.namesCollective()) return false;
    if (words.length > 0 && squeeze(words.join('')) === squeeze(this.last.name)) return false;
    const inner = new Reader(this.text, this.catalogue);
    inner.readAll(group.nodes);
    if (inner.unknown.length > 0 || inner.hasModifiers || inner.mentions.length === 0) return false;
    const count = (list: readonly string[], allele: string): number =>
      list.filter((one) => one === allele).length;
    // A combination's name may stand behind all its genes: "Lesser Pinstripe (Kingpin)".
    const alleles =
      inner.mentions.length > 1 ? this.mentions.flatMap((mention) => mention.alleles) : this.last.alleles;
    // "Pastel (Super Pastel)" explains nothing: it says that there may be a second copy.
    return inner.mentions.every((mention) =>
      mention.alleles.every((allele) => count(mention.alleles, allele) <= count(alleles, allele)),
    );
  }

  private dangling(): void {
    if (this.pending) this.report(this.pending, 'dangling', []);
    this.pending = null;
    this.endAlternative();
  }

  /** "Double het Clown": the second gene is missing. */
  private endOfList(): void {
    if (this.list && Number.isFinite(this.list.left) && this.list.left > 0)
      this.report(this.list.place, 'dangling', []);
    this.list = null;
  }
}

/** Says nothing of how sure it is: at most how many copies, and on which chromosome. */
const isBare = (modifiers: Modifiers = {}): boolean =>
  !modifiers.het && !modifiers.visual && !modifiers.possible && modifiers.chance === undefined;
