import type { Catalogue } from '../catalogue/catalogue.ts';
import type { Meaning } from '../catalogue/words.ts';
import { isRecessive } from '../loci/locus.ts';
import type { Mention } from './assemble.ts';
import { Expansion, type Combination } from './expansion.ts';
import type { Modifiers, Phase } from './modifiers.ts';
import { nameOf } from './names.ts';
import type { PossibleAllele, UnknownWord } from './reading.ts';

export interface Place {
  readonly start: number;
  readonly end: number;
}

interface Last extends Place {
  readonly meaning: Meaning;
  /** The words of the name alone. */
  readonly name: string;
  readonly alleles: readonly string[];
  readonly modifiers: Modifiers;
  readonly mentionsBefore: number;
  readonly possibleBefore: number;
}

export interface Collective extends Place {
  readonly meaning: Extract<Meaning, { kind: 'collective' }>;
}

/** Takes genes with what holds for each, and keeps what they say until the whole text has been read. */
export abstract class Placement extends Expansion {
  readonly text: string;
  readonly mentions: Mention[] = [];
  readonly possible: PossibleAllele[] = [];
  readonly phases = new Map<string, Phase>();
  readonly names = new Map<string, string>();
  readonly collectives: Collective[] = [];
  readonly unknown: UnknownWord[] = [];
  normal: Place | null = null;
  protected last: Last | null = null;
  /** The name that is being placed, without what is said of it. */
  private name = '';
  /** The "or" that was read after the last mention. */
  protected alternative: Place | null = null;

  constructor(text: string, catalogue: Catalogue) {
    super(catalogue);
    this.text = text;
  }

  report(
    { start, end }: Place,
    reason: UnknownWord['reason'],
    suggestions: readonly string[],
    against: readonly string[] = [],
    settle?: UnknownWord['settle'],
  ): void {
    const word = this.text.slice(start, end);
    this.unknown.push({ word, start, end, reason, suggestions, against, ...(settle ? { settle } : {}) });
  }

  /**
   * @param place - the name with all that is said of it
   * @param isInBracket - it is possible only because it stands in a bracket
   */
  protected place(
    meaning: Meaning,
    modifiers: Modifiers,
    { start, end }: Place,
    name: string,
    isInBracket = false,
  ): void {
    const before = { mentionsBefore: this.mentions.length, possibleBefore: this.possible.length };
    this.name = name;
    this.put(meaning, modifiers, { start, end }, isInBracket);
    const alleles = this.everyAllele(meaning);
    this.last = { meaning, name, alleles, modifiers, start, end, ...before };
  }

  private put(meaning: Meaning, modifiers: Modifiers, place: Place, isInBracket: boolean): void {
    if (this.alternative) {
      this.putAlternative(meaning, place);
      return;
    }
    switch (meaning.kind) {
      case 'allele':
        this.putAllele(meaning, modifiers, place, isInBracket);
        return;
      case 'pair':
        this.putPair(meaning, modifiers, place);
        return;
      case 'collective':
        this.collectives.push({ meaning, ...place });
        return;
      case 'combination':
        this.putCombination(meaning, modifiers, place, isInBracket);
        return;
      case 'wild':
        this.normal = place;
    }
  }

  private putCombination(
    meaning: Combination,
    modifiers: Modifiers,
    place: Place,
    isInBracket: boolean,
  ): void {
    const choices = this.choicesOf(meaning, modifiers);
    if (choices.length > 0) {
      this.report(place, 'ambiguous', choices, [], { word: this.name, genes: this.choicesOf(meaning, {}) });
      return;
    }
    const genes = this.genesOf(meaning);
    if (modifiers.super && genes.length > 1) {
      // Which of its genes is double? Each is offered.
      const named = genes.map((gene) => nameOf(gene.meaning, this.catalogue));
      const doubles = genes.flatMap((gene, at) =>
        gene.meaning.kind === 'allele' ? [named.with(at, `Super ${named[at]}`).join(' ')] : [],
      );
      this.report(place, 'ambiguous', doubles);
      return;
    }
    for (const gene of genes) this.put(gene.meaning, { ...gene.modifiers, ...modifiers }, place, isInBracket);
  }

  private putPair(meaning: Extract<Meaning, { kind: 'pair' }>, modifiers: Modifiers, place: Place): void {
    const { locus, alleles } = meaning;
    if (modifiers.het || modifiers.super) {
      const single = [...new Set(alleles)].map((allele) => this.catalogue.alleleName(allele));
      this.report(place, 'contradictory', modifiers.super ? [nameOf(meaning, this.catalogue)] : single);
    } else if (modifiers.possible && modifiers.chance === undefined) {
      for (const allele of new Set(alleles)) this.possible.push({ allele, isHet: false });
    } else {
      this.mention(locus, alleles, true, modifiers.chance ?? 1, place);
    }
  }

  private putAllele(
    { allele, name }: Extract<Meaning, { kind: 'allele' }>,
    modifiers: Modifiers,
    place: Place,
    isInBracket: boolean,
  ): void {
    const { locus } = this.catalogue.alleleById(allele)!;
    const recessive = isRecessive(locus, allele);
    const { chance, visual = false } = modifiers;
    const label = this.catalogue.alleleName(allele);
    // "66% Clown": a recessive gene with a chance is carried with that chance.
    const isCarriedByChance = recessive && chance !== undefined && !visual;
    const het = modifiers.het === true || isCarriedByChance;
    if (isCarriedByChance && chance === 1 && !modifiers.het) {
      this.report(place, 'ambiguous', [`Het ${label}`, `Visual ${label}`]);
      return;
    }
    if (modifiers.super && het) {
      this.report(place, 'contradictory', [label, `Super ${label}`]);
      return;
    }
    if (name) this.names.set(allele, name);
    this.putPhase(allele, modifiers.phase, place);
    const shows = !(het && recessive);
    if (modifiers.possible && chance === undefined) {
      this.possible.push({ allele, isHet: !shows });
      // "Poss super Pastel": one copy is seen, the second is not sure.
      if (modifiers.super && !isInBracket && !recessive) this.mention(locus.id, [allele], true, 1, place);
    } else {
      const alleles = modifiers.super && !recessive ? ([allele, allele] as const) : ([allele] as const);
      this.mention(locus.id, alleles, shows, chance ?? 1, place);
    }
  }

  private mention(
    locus: string,
    alleles: Mention['alleles'],
    shows: boolean,
    p: number,
    { start, end }: Place,
  ): void {
    this.mentions.push({ locus, alleles, shows, or: [], p, word: this.text.slice(start, end), start, end });
  }

  private putPhase(allele: string, phase: Phase | undefined, place: Place): void {
    if (!phase) return;
    const { locus } = this.catalogue.alleleById(allele)!;
    if (locus.sexLinked) this.phases.set(locus.id, phase);
    else this.report(place, 'impossible', []);
  }

  /** Says of the last gene what stands after it; returns whether there is one that takes it. */
  protected changeLast(modifiers: Modifiers): boolean {
    const { last } = this;
    if (!last) return false;
    if (modifiers.phase) {
      const linked = last.alleles.find((allele) => this.catalogue.alleleById(allele)!.locus.sexLinked);
      if (linked === undefined) return false;
      this.putPhase(linked, modifiers.phase, last);
      return true;
    }
    if (Object.keys(last.modifiers).some((key) => key !== 'super' && key !== 'phase')) return false;
    this.mentions.length = last.mentionsBefore;
    this.possible.length = last.possibleBefore;
    this.place(last.meaning, { ...last.modifiers, ...modifiers }, last, last.name);
    return true;
  }

  protected namesCollective(): boolean {
    return this.last?.meaning.kind === 'collective';
  }

  /** "Axanthic": the choices, each with what was said of it. */
  protected askAbout(
    meanings: readonly Meaning[],
    modifiers: Modifiers,
    place: Place,
    word: string,
    isLine: boolean,
  ): void {
    const [choices, genes] = [modifiers, {}].map((given) =>
      meanings.map((meaning) => this.spellGenes(meaning, given)),
    ) as [string[], string[]];
    this.report(place, isLine ? 'unknown-line' : 'ambiguous', choices, [], { word, genes });
    this.last = null;
  }

  /** "Het Clown Pied": is the second one carried as well? */
  protected askWhetherCarried(meaning: Meaning, modifiers: Modifiers, place: Place): void {
    const choices = [{ ...modifiers, het: true }, { visual: true }].map((given) =>
      this.spellGenes(meaning, given),
    );
    this.report(place, 'ambiguous', choices);
    this.last = null;
  }

  protected beginAlternative(place: Place): void {
    if (this.mentions.length === 0) this.report(place, 'dangling', []);
    else this.alternative = place;
  }

  protected endAlternative(): void {
    if (this.alternative) this.report(this.alternative, 'dangling', []);
    this.alternative = null;
  }

  /** "Yellow belly or asphalt": the second takes on what was said of the first. */
  private putAlternative(meaning: Meaning, place: Place): void {
    const { start } = this.alternative!;
    this.alternative = null;
    const first = this.mentions.at(-1);
    const locus = meaning.kind === 'allele' ? this.catalogue.alleleById(meaning.allele)!.locus : null;
    if (
      !first ||
      meaning.kind !== 'allele' ||
      first.locus !== locus?.id ||
      first.alleles[0] === meaning.allele
    ) {
      this.report({ start, end: place.end }, 'impossible', []);
      return;
    }
    this.mentions[this.mentions.length - 1] = { ...first, or: [...first.or, meaning.allele] };
  }
}
