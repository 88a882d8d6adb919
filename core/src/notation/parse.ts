import { CATALOGUE, type Catalogue } from '../catalogue/catalogue.ts';
import { foldPhrase, type Meaning } from '../catalogue/words.ts';
import { canonical, compareAlleles, type WeightedGenotype } from '../loci/genotype.ts';
import { WILD, type Allele, type Locus } from '../loci/locus.ts';
import { assembleLocus, type Mention } from './assemble.ts';
import { nameOf, suggestionsFor } from './suggest-words.ts';

/** Which of a male's sex chromosomes carries a sex-linked allele: on the Y he makes males with it, on the X females. */
export type Phase = 'male-maker' | 'female-maker';

/** A word that could not be placed, and what it may have been meant as. */
export interface UnknownWord {
  readonly word: string;
  readonly reason: 'unknown' | 'ambiguous' | 'dangling' | 'impossible';
  readonly suggestions: readonly string[];
}

export interface ParsedGenes {
  /** Locus id -> genotype distribution (adds up to 1). Loci not named are left out: they are wild type. */
  readonly loci: ReadonlyMap<string, readonly WeightedGenotype[]>;
  /** Locus id -> phase, where the text names one. */
  readonly phases: ReadonlyMap<string, Phase>;
  /** Locus id -> the alleles one of which it is, where the text says so: "yellow belly or asphalt". */
  readonly either: ReadonlyMap<string, readonly string[]>;
  /** Allele ids in brackets: not seen, not excluded. */
  readonly possible: readonly string[];
  readonly unknown: readonly UnknownWord[];
}

interface Modifiers {
  super: boolean;
  /** How many of the following genes are carried in one copy. */
  hets: number;
  percent: number | null;
  possible: boolean;
  phase: Phase | null;
  words: string[];
}

const none = (): Modifiers => ({
  super: false,
  hets: 0,
  percent: null,
  possible: false,
  phase: null,
  words: [],
});

/** `66%` and `33%` are the trade's spelling of 2/3 and 1/3; any other percentage is taken as written. */
export function percentToProbability(percent: number): number {
  if (percent === 66) return 2 / 3;
  if (percent === 33) return 1 / 3;
  return percent / 100;
}

/** A map, not an object: an object also knows "constructor". */
const MODIFIER_WORDS: ReadonlyMap<string, (modifiers: Modifiers) => void> = new Map(
  Object.entries<(modifiers: Modifiers) => void>({
    super: (m) => (m.super = true),
    het: (m) => (m.hets = Math.max(m.hets, 1)),
    hets: (m) => (m.hets = Math.max(m.hets, 1)),
    dh: (m) => (m.hets = 2),
    'double het': (m) => (m.hets = 2),
    th: (m) => (m.hets = 3),
    'triple het': (m) => (m.hets = 3),
    poss: (m) => (m.possible = true),
    possible: (m) => (m.possible = true),
    ph: (m) => {
      m.possible = true;
      m.hets = Math.max(m.hets, 1);
    },
    mm: (m) => (m.phase = 'male-maker'),
    'male maker': (m) => (m.phase = 'male-maker'),
    fm: (m) => (m.phase = 'female-maker'),
    'female maker': (m) => (m.phase = 'female-maker'),
  }),
);

const FILLERS = new Set(['and', '&', '+', 'visual', 'x']);

/**
 * Reads trade shorthand ("Cinnamon YB 66% het Clown (OD)"), in any order and case.
 *
 * A gene named visual means one copy where one copy shows and two where it is recessive; `super` means two. What cannot
 * be placed, or can mean two things, comes back in `unknown` with suggestions and is never guessed.
 *
 * @param text - at most a few hundred characters; longer texts are read all the same
 * @example parseGenes('Pastel het Clown').unknown // []
 */
export function parseGenes(text: string, catalogue: Catalogue = CATALOGUE): ParsedGenes {
  const reader = new Reader(catalogue);
  const spaced = text
    .replace(/[([]/g, ' ( ')
    .replace(/[)\]]/g, ' ) ')
    .replace(/[,;/·]+/g, ' , ');
  reader.read(spaced.split(/\s+/).filter((word) => word !== ''));
  return reader.finish();
}

class Reader {
  private readonly catalogue: Catalogue;
  private readonly mentions: Mention[] = [];
  private readonly possible: string[] = [];
  private readonly unknown: UnknownWord[] = [];
  private readonly phases = new Map<string, Phase>();
  private modifiers = none();
  private inBrackets = false;
  /** An "or" was read after the last mention. */
  private isAlternative = false;
  private lastSexLinked: string | null = null;

  constructor(catalogue: Catalogue) {
    this.catalogue = catalogue;
  }

  read(words: readonly string[]): void {
    for (let at = 0; at < words.length;) at += this.step(words, at);
  }

  /** Handles the phrase that starts at `at`; returns how many words it took. */
  private step(words: readonly string[], at: number): number {
    const word = words[at]!;
    if (word.toLowerCase() === 'or' && this.mentions.length > 0 && !this.inBrackets) {
      this.isAlternative = true;
      return 1;
    }
    // A comma only keeps two words apart: "Desert, Ghost" is not "Desert Ghost".
    if (word === ',') return 1;
    if (word === '(' || word === ')') {
      this.dangling();
      this.inBrackets = word === '(';
      return 1;
    }
    const percent = /^(\d+(?:\.\d+)?)%$/.exec(word);
    if (percent && Number(percent[1]) <= 100) {
      this.modifiers.percent = percentToProbability(Number(percent[1]));
      this.modifiers.words.push(word);
      return 1;
    }
    for (let length = Math.min(this.catalogue.longestPhrase, words.length - at); length > 0; length--) {
      const phrase = foldPhrase(words.slice(at, at + length).join(' '));
      const meanings = this.catalogue.phrases.get(phrase);
      if (meanings) {
        this.place(words.slice(at, at + length).join(' '), meanings);
        return length;
      }
      const modify = MODIFIER_WORDS.get(phrase);
      if (modify) {
        this.modify(phrase, modify);
        return length;
      }
    }
    if (!FILLERS.has(word.toLowerCase())) this.report(word, 'unknown', suggestionsFor(word, this.catalogue));
    return 1;
  }

  private modify(phrase: string, modify: (modifiers: Modifiers) => void): void {
    const before = this.modifiers.phase;
    modify(this.modifiers);
    // "Banana male-maker": the phase may also follow its gene.
    if (this.modifiers.phase !== before && this.lastSexLinked && this.modifiers.words.length === 0) {
      this.phases.set(this.lastSexLinked, this.modifiers.phase!);
      this.modifiers.phase = before;
      return;
    }
    this.modifiers.words.push(phrase);
  }

  private place(word: string, meanings: readonly Meaning[]): void {
    if (meanings.length > 1) {
      this.report(
        word,
        'ambiguous',
        meanings.map((meaning) => nameOf(meaning, this.catalogue)),
      );
      this.modifiers = none();
      return;
    }
    const meaning = meanings[0]!;
    if (meaning.kind === 'combination') this.read(meaning.words.split(' '));
    else if (meaning.kind === 'pair') this.placePair(word, meaning);
    else if (meaning.kind === 'allele') this.placeAllele(meaning.allele);
    if (meaning.kind === 'wild') this.dangling();
  }

  private placePair(word: string, pair: Extract<Meaning, { kind: 'pair' }>): void {
    const { modifiers } = this;
    this.modifiers = none();
    if (modifiers.super || modifiers.hets > 0) {
      this.report([...modifiers.words, word].join(' '), 'impossible', [word]);
    } else if (this.inBrackets || modifiers.possible) {
      this.possible.push(...new Set(pair.alleles));
    } else if (pair.alleles[0] === pair.alleles[1]) {
      this.mentions.push({
        locus: pair.locus,
        allele: pair.alleles[0],
        copies: 2,
        p: modifiers.percent ?? 1,
        word,
      });
    } else {
      for (const id of pair.alleles) {
        const copies = this.catalogue.alleleById(id)!.allele.expression === 'recessive' ? 'visual' : 1;
        this.mentions.push({ locus: pair.locus, allele: id, copies, p: 1, word });
      }
    }
  }

  private placeAllele(alleleId: string): void {
    const { modifiers } = this;
    const { locus, allele } = this.catalogue.alleleById(alleleId)!;
    const het = modifiers.hets > 0;
    if (this.isAlternative) {
      this.placeAlternative(locus, allele);
      return;
    }
    if (this.inBrackets || modifiers.possible) {
      this.possible.push(alleleId);
    } else {
      const visualCopies = allele.expression === 'recessive' ? ('visual' as const) : (1 as const);
      this.mentions.push({
        locus: locus.id,
        allele: alleleId,
        copies: modifiers.super ? 2 : het ? 1 : visualCopies,
        p: modifiers.percent ?? 1,
        word: allele.name,
      });
      if (locus.sexLinked) {
        this.lastSexLinked = locus.id;
        if (modifiers.phase) this.phases.set(locus.id, modifiers.phase);
      } else if (modifiers.phase) {
        this.report(modifiers.phase, 'impossible', []);
      }
    }
    // "DH Clown Pied": the modifier holds for as many genes as it names.
    this.modifiers =
      modifiers.hets > 1
        ? {
            ...none(),
            hets: modifiers.hets - 1,
            percent: modifiers.percent,
            possible: modifiers.possible,
            words: modifiers.words,
          }
        : none();
  }

  /** "Yellow belly or asphalt": the second takes on what was said of the first. */
  private placeAlternative(locus: Locus, allele: Allele): void {
    this.isAlternative = false;
    this.modifiers = none();
    const first = this.mentions.at(-1)!;
    if (first.locus !== locus.id || first.allele === allele.id) {
      this.report(`or ${allele.name}`, 'impossible', []);
      return;
    }
    this.mentions[this.mentions.length - 1] = { ...first, or: [...(first.or ?? []), allele.id] };
  }

  private dangling(): void {
    if (this.isAlternative) this.report('or', 'dangling', []);
    this.isAlternative = false;

    if (this.modifiers.words.length > 0) this.report(this.modifiers.words.join(' '), 'dangling', []);
    this.modifiers = none();
  }

  private report(word: string, reason: UnknownWord['reason'], suggestions: readonly string[]): void {
    this.unknown.push({ word, reason, suggestions });
  }

  finish(): ParsedGenes {
    this.dangling();
    const loci = new Map<string, readonly WeightedGenotype[]>();
    const either = new Map<string, readonly string[]>();
    for (const locus of this.catalogue.loci) {
      const mentions = this.mentions.filter((mention) => mention.locus === locus.id);
      if (mentions.length === 0) continue;
      const genotypes = assembleLocus(locus, mentions);
      const [first] = mentions;
      if (genotypes && first!.or)
        either.set(locus.id, [first!.allele, ...first!.or].toSorted(compareAlleles));
      if (genotypes) loci.set(locus.id, genotypes);
      else this.report(mentions.map((mention) => mention.word).join(' '), 'impossible', []);
    }
    return {
      loci,
      phases: this.phases,
      either,
      possible: [...new Set(this.possible)],
      unknown: this.unknown,
    };
  }
}

/** The distribution of a locus that no text names. */
export const WILD_FOR_CERTAIN: readonly WeightedGenotype[] = [{ genotype: canonical(WILD, WILD), p: 1 }];
