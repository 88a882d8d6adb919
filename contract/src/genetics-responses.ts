import type {
  CatalogueEntry,
  ClaimKind,
  ExplanationKind,
  Inheritance,
  ShortClaim,
  Strengthening,
} from '@karyotome/core';
import type { SupportView } from './record-responses.ts';
import type { Sex } from './animal-status.ts';

/** The rule by which a claim follows from the records that it rests on. */
export type ClaimRule =
  | 'whole-family'
  | 'offspring-lower-odds'
  | 'offspring-show-it'
  | 'stated-on-entry'
  | 'seen'
  | 'certain-parent'
  | 'parents-odds'
  | 'seen-and-possible';

export interface ClaimView {
  locus: string;
  allele: string;
  kind: ClaimKind;
  /** In the trade's notation: "Clown", "66% het Clown". */
  label: string;
  p: number;
  certain: boolean;
  rule: ClaimRule;
  /** Null: it rests on the whole family's records. */
  support: SupportView[] | null;
}

export interface ConflictView {
  /** A locus, or `sires` or `sex` where several loci clash through them. */
  locus: string;
  /** Its name; null for `sires` and `sex`. */
  locusName: string | null;
  animals: { id: string; number: string; label: string }[];
}

/** A contradiction with what may have gone wrong, the likeliest first. */
export interface ContradictionView extends ConflictView {
  /** The same as long as the same animals contradict one another at the same locus. */
  id: string;
  /** Each animal's identification: what the records say. */
  records: SupportView[];
  explanations: {
    kind: ExplanationKind;
    /** Of the first animal: its label and recorded sex, which the explanation doubts. */
    label: string;
    sex: Sex;
    /** Names of the alleles that were not recorded. */
    alleles: string[];
    /** Of all explanations' weight; they add up to 1. */
    share: number;
    animals: { id: string; number: string }[];
    /** For a parent that carries more: its genes as they would have to be stated. */
    genes: string | null;
    /** The identification that would be withdrawn or stated anew. */
    recordId: string | null;
    clutchId: string | null;
  }[];
}

/** A record that is more likely wrong than right at one locus. */
export interface DoubtfulRecordView {
  id: string;
  locusName: string;
  record: SupportView;
  /** The chance that it is wrong there, given everything that is recorded. */
  pWrong: number;
}

/** A record to look at again, where records contradict one another. */
export interface SuspectView extends DoubtfulRecordView {
  /** The share of all doubt that looking again is expected to take away. */
  settles: number;
  /** One of the records that together are enough to settle every contradiction. */
  isEnough: boolean;
}

/** What an entry of the catalogue would change, before it counts. */
export interface TrialView {
  /** How many animals something else would be claimed of; the first of them are listed. */
  changed: number;
  animals: { id: string; number: string; before: ShortClaim[]; after: ShortClaim[] }[];
  /** Names of the loci at which the records would newly contradict one another. */
  contradictions: string[];
}

/** A gene that a founder's statement did not name, and that its descendants say is there. */
export interface SurpriseView {
  /** The animal's id and the locus. */
  id: string;
  animal: { id: string; number: string };
  /** Its genes as they were stated. */
  stated: string;
  /** Names of the alleles that it may be. */
  alleles: string[];
  /** The chance that it carries one: beforehand, and with all that is recorded. */
  pBefore: number;
  p: number;
  /** Its genes as they would be stated with it. */
  genes: string;
}

/** The records a claim depends on and what would make it surer: read when somebody asks. */
export interface ClaimDetailView {
  /** What its ancestors and its own look alone would have it be called, for comparison: "66% het Clown". */
  fromPedigree: string | null;
  /** Ids of the supporting records without which the claim falls. */
  hinges: string[];
  strengthen: { kind: Strengthening['kind']; number: string; p: number | null; animalId: string }[];
  /** For a possible carrier: mates that would prove it, the quickest first. */
  proofs: {
    animalId: string;
    number: string;
    label: string;
    eggs: number;
    eggsForNo: number;
    pProved: number;
  }[];
}

/** How many animals a locus is named of. */
export interface OccurrenceView {
  locus: string;
  animals: number;
}

export interface CatalogueView {
  /** The version of the built-in catalogue that the collection reads by. */
  version: string;
  /** What a later one would read otherwise; null where there is none. */
  update: { version: string; loci: string[] } | null;
  entries: { id: string; version: number; author: string; entry: CatalogueEntry; usedBy: number }[];
}

/** One animal of a kin chart. */
export interface KinNodeView {
  id: string;
  number: string;
  name: string | null;
  sex: Sex;
  label: string;
  died: boolean;
  dam: string | null;
  sires: { id: string; p: number }[];
  /** Wright's coefficient of relationship with the animal the chart is about. */
  relationship: number;
  /** Wright's coefficient of inbreeding. */
  inbreeding: number;
  /** Of the gene that was asked about: the chance that it shows, and that it is there at all. */
  gene: { pShows: number; pCarries: number } | null;
}

/** A gene of the collection's own that is not proven, and what the records say of it. */
export interface UnprovenGeneView {
  locus: string;
  name: string;
  shows: { id: string; number: string }[];
  /** Young of those that show it, looked at. */
  young: { showing: number; others: number };
  /** How likely each way of inheritance is; null where no animal shows it, or the answer is out of reach. */
  odds: Readonly<Record<Inheritance, number>> | null;
  /** Pairings that would tell, the most telling first; null stands for an animal from elsewhere that does not show it. */
  tests: {
    dam: { id: string; number: string } | null;
    sire: { id: string; number: string } | null;
    /** Young needed until it is known, in nine of ten cases. */
    young: number;
    /** Ways of inheritance that their young tell apart. */
    apart: Inheritance[][];
  }[];
}
