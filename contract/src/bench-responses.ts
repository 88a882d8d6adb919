import type {
  Hypothesis,
  Impossible,
  Observation,
  ParentNews,
  Sureness,
  VisibleOutcome,
} from '@karyotome/core';
import type { Sex } from './animal-status.ts';
import type { AnimalSummary, ParentView, TubPlace } from './animal-summary.ts';
import type { LabelSize } from './bench-requests.ts';
import type { ClutchSummary } from './breeding-responses.ts';
import type { ConflictView } from './genetics-responses.ts';
import type { PrintedLabelView } from './label-responses.ts';
import type { RecordView, SexDoubt } from './record-responses.ts';

export interface OpinionView {
  id: string;
  by: string;
  genes: string;
  sure: Sureness;
  note: string | null;
  on: string;
  /** Given through a one-time address, by somebody without an account. */
  isOutside: boolean;
}

export interface HatchlingView extends AnimalSummary {
  records: RecordView[];
  /** What of the identification the pairing cannot give; empty where it can. */
  impossible: Impossible[];
  sires: { id: string; number: string; p: number }[];
  pictureIds: string[];
  observations: Record<string, Observation>;
  /** The version a change of the sightings is based on; 0 where nothing was seen yet. */
  observationsVersion: number;
  /** What it can be but for its own identification. Empty where a parent is not identified. */
  hypotheses: Hypothesis[];
  opinions: OpinionView[];
  printedLabel: PrintedLabelView | null;
  /** One of two from one egg. */
  isTwin: boolean;
  /** What sex-linked genes say against the recorded sex. */
  sexDoubts: SexDoubt[];
}

/** An animal to hold a hatchling against. */
export interface ComparisonView {
  id: string;
  number: string;
  label: string;
  pictureIds: string[];
  /** Earlier young of the pair, with the year of its hatching; null for an animal that shows one gene alone. */
  ofPair: { year: number | null } | null;
  /** The single gene that it shows, as `phenotype` and by name; null for earlier young of the pair. */
  phenotype: string | null;
  phenotypeLabel: string | null;
}

export interface BenchParentView extends ParentView {
  pictureIds: string[];
  /** What the clutch's identifications say of it. */
  news: ParentNews[];
}

export interface BenchView {
  clutch: ClutchSummary & { incubationC: number | null; note: string | null; version: number };
  dam: BenchParentView;
  sires: BenchParentView[];
  /** What the pairing can produce, grouped by what shows; over the candidate sires by their weights. */
  outcomes: VisibleOutcome[];
  cautions: string[];
  hatchlings: HatchlingView[];
  /** How well what was identified fits the pairing; null where nothing is identified yet. */
  fit: {
    /** Of a clutch at least as far from the odds at some locus, were the odds right (exact tests, Bonferroni). */
    p: number;
    looked: number;
    /** What the pair can show, or what was seen; `p` of its locus alone. */
    genes: { label: string; expected: number; seen: number; p: number }[];
  } | null;
  groups: { name: string; animalIds: string[] }[];
  sortingVersion: number;
  comparisons: ComparisonView[];
  conflicts: ConflictView[];
  /** Loci at which records contradict one another, so that nothing is computed there. */
  leftOut: string[];
  /** Pictures of the clutch's card. */
  cardPictureIds: string[];
  links: OpinionLinkView[];
  nextNumbers: string[];
}

export interface OpinionLinkView {
  id: string;
  numbers: string[];
  createdAt: string;
  expiresOn: string;
}

/** What somebody sees at a one-time address. */
export interface OutsideView {
  collection: string;
  note: string | null;
  dam: string;
  sires: string[];
  outcomes: string[];
  animals: { id: string; number: string; sex: Sex; hatchedOn: string | null; pictureIds: string[] }[];
}

/** Where each one of a clutch could live, the first free tubs of the first step. */
export interface SetUpProposal {
  places: { animalId: string; number: string; tubId: string | null }[];
  tubs: TubPlace[];
  firstMealOn: string;
}

/** One label as it is drawn: millimetres, from its top left. */
export interface DrawnLabel {
  animalId: string;
  number: string;
  /** Each with the width that it is set in, so that another face comes out the same. */
  texts: { text: string; x: number; y: number; sizeMm: number; widthMm: number; isBold: boolean }[];
  /** The code's dark squares as one SVG path over a square of `modules`, and where it stands. */
  qr: { path: string; modules: number; x: number; y: number; sideMm: number } | null;
}

export interface LabelPreview {
  size: LabelSize;
  widthMm: number;
  heightMm: number;
  labels: DrawnLabel[];
}

/** How calls proved, over all people and genes. */
export interface CallsView {
  bySure: { sure: Sureness; right: number; settled: number }[];
  byGene: { phenotype: string; label: string; by: string; right: number; settled: number }[];
}
