import type {
  Appetite,
  CatalogueEntry,
  ClaimKind,
  ExplanationKind,
  FactOf,
  Impossible,
  InShed,
  Meal,
  MoveAdvice,
  MoveOutcome,
  PreyState,
  Strengthening,
  Sureness,
  Task,
} from '@karyotome/core';
import type { PrintedLabelView, SexDoubt } from './bench-responses.ts';
import type { AnimalCare, HeatZoneView } from './husbandry-responses.ts';
import type { CollectionSettings, LadderStepInput, Sex, Status } from './requests.ts';
import type { RecordBodies, RecordKind } from './records.ts';
import type { Permission } from './routes/route.ts';
import type { FieldProblem } from './validate.ts';

/** RFC 9457 problem document with a field per broken rule. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail?: string;
  requestId?: string;
  errors?: readonly FieldProblem[];
}

export interface SessionView {
  account: { id: string; name: string; email: string };
  role: 'owner' | 'keeper' | 'viewer';
  /** What this person may do in the collection. */
  permissions: Permission[];
  /** `farmZone` is the zone that counts: the one that was said, or until then the server's. */
  collection: CollectionSettings & { id: string; version: number; farmZone: string };
  csrfToken: string;
}

export interface AnimalSummary {
  id: string;
  number: string;
  name: string | null;
  sex: Sex;
  hatchedOn: string | null;
  status: Status;
  label: string;
  identified: boolean;
  massG: number | null;
  weighedOn: string | null;
  tub: TubPlace | null;
  published: boolean;
  pictureId: string | null;
  clutchId: string | null;
  version: number;
}

export interface TubPlace {
  tubId: string;
  room: string;
  rack: string;
  level: number;
  slot: number;
}

export type RecordView = {
  [K in RecordKind]: {
    id: string;
    kind: K;
    on: string;
    body: RecordBodies[K] &
      (K extends 'move' ? { fromTubId: string | null; from: string | null; to: string | null } : unknown);
    note: string | null;
    author: string;
    recordedAt: string;
    voided: { at: string; by: string; reason: string; replacedBy: string | null } | null;
  };
}[RecordKind];

/** A record with what it holds, as words are made of it. */
export type RecordFact = {
  [K in RecordKind]: { kind: K; body: RecordBodies[K] };
}[RecordKind];

/** An identification or statement that a claim rests on. `label` is canonical. */
export interface SupportView {
  recordId: string;
  animalId: string;
  animalNumber: string;
  on: string;
  label: string;
  sure: Sureness;
  by: string;
}

/** What a genetic record is warned of, although it is taken. */
export type RecordWarning = FactOf<{ 'pair-cannot-give': Impossible; 'sex-does-not-fit': SexDoubt }>;

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

export interface ParentView {
  role: 'dam' | 'sire';
  id: string;
  number: string;
  name: string | null;
  sex: Sex;
  label: string;
  /** Below 1 where several sires are possible. */
  p: number;
  parents: ParentView[];
}

export interface PictureView {
  id: string;
  caption: string;
  isDrawing: boolean;
  takenOn: string | null;
  width: number;
  height: number;
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

/** What a claim hangs on and what would make it surer: read when somebody asks. */
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

export interface CatalogueView {
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

export interface AnimalView extends AnimalSummary {
  /** What the records say of genes is still being worked out: what was recorded stands in for it. */
  isGeneticsPending: boolean;
  note: string | null;
  damId: string | null;
  sireId: string | null;
  records: RecordView[];
  parents: ParentView[];
  offspring: { id: string; number: string; label: string; sex: Sex }[];
  clutch: { id: string; name: string; laidOn: string; hatchedOn: string | null; mates: number } | null;
  claims: ClaimView[];
  /** Genes that a parent may have and this one has not. */
  excluded: string[];
  conflicts: ConflictView[];
  advice: MoveAdvice & {
    ladder: string | null;
    from: string | null;
    to: string | null;
    freeTubs: TubPlace[];
  };
  moveOutcomes: Record<string, MoveOutcome>;
  appetite: Appetite;
  nextMeal: Meal | null;
  care: AnimalCare;
  inShed: InShed | null;
  steps: LadderStepInput[];
  currentStep: number | null;
  pictures: PictureView[];
  publication: { slug: string; publishedAt: string; text: string | null } | null;
  printedLabel: PrintedLabelView | null;
}

export interface PairingView {
  id: string;
  season: number;
  startedOn: string;
  note: string | null;
  dam: ParentView;
  sires: (ParentView & { weight: number; stored: boolean })[];
  clutches: ClutchSummary[];
  cautions: string[];
  version: number;
}

export interface ClutchSummary {
  id: string;
  name: string;
  laidOn: string;
  eggs: number;
  slugs: number | null;
  hatchedOn: string | null;
  hatched: number | null;
  identified: number;
  day: number;
}

export interface LadderView {
  id: string;
  name: string;
  steps: LadderStepInput[];
  racks: number;
  version: number;
}

export interface RackView {
  id: string;
  room: string;
  name: string;
  levels: number;
  tubsPerLevel: number;
  ladderId: string;
  stepPosition: number;
  step: LadderStepInput;
  version: number;
  tubs: {
    id: string;
    level: number;
    slot: number;
    animals: {
      id: string;
      number: string;
      label: string;
      sex: Sex;
      massG: number | null;
      verdict: MoveAdvice['verdict'];
      inShed: boolean;
      /** Its weight against the range of its tub. */
      fit: 'light' | 'fits' | 'heavy' | null;
      concern: boolean;
      lastCleaned: string | null;
      cleanDue: boolean;
    }[];
  }[];
  zones: HeatZoneView[];
}

export type TodayLine = Task & {
  key: string;
  animal: AnimalSummary | null;
  clutch: { id: string; name: string } | null;
  incubator: { id: string; name: string } | null;
  advice: (MoveAdvice & { freeTubs: TubPlace[] }) | null;
  preset: MealPreset | null;
  zone: { id: string; name: string; rack: string } | null;
};
/** What one touch records as offered. */
export interface MealPreset {
  species: 'rat' | 'mouse';
  size: string;
  preyG: number;
  state: PreyState;
  step: string | null;
}

export interface TodayView {
  today: string;
  lines: TodayLine[];
  thaw: { prey: string; count: number; left: number | null }[];
}

/** What people who watch a collection are told at once, beside that something changed. */
export type Notice = { code: 'tub-shared'; facts: { tub: string; numbers: string[] } };

/** How far long work is. `of` is 0 where that is not known yet. */
export interface JobProgress {
  step: 'reading' | 'checking' | 'writing';
  done: number;
  of: number;
}

export interface ImportRow {
  line: number;
  number: string;
  genes: string;
  label: string;
  sex: string;
  problems: FieldProblem[];
}
export interface ImportPreview {
  rows: ImportRow[];
  good: number;
  bad: number;
  unknownColumns: string[];
}

/** What a buyer sees, and the JSON download: no private notes, no places, no other people's names. */
export interface PublicAnimal {
  format: 'karyotome-public-animal/1';
  collection: string;
  /** In which the collection tells its measures; the figures here are grams all the same. */
  units: Pick<CollectionSettings, 'massUnit' | 'temperatureUnit'>;
  number: string;
  name: string | null;
  label: string;
  sex: Sex;
  sexing: { method: RecordBodies['sex']['method']; sure: Sureness } | null;
  hatchedOn: string | null;
  text: string | null;
  asOf: string;
  publishedAt: string;
  weights: { on: string; massG: number }[];
  feedings: { on: string; species: string; size: string; state: PreyState; taken: boolean }[];
  sheds: { on: string; complete: boolean | null }[];
  lineage: PublicKin[];
  claims: {
    label: string;
    kind: ClaimKind;
    p: number;
    certain: boolean;
    rule: ClaimRule;
    /** By whom is left out: people's names are not published. */
    support: { animal: string; on: string; label: string; sure: Sureness }[] | null;
  }[];
  cautions: string[];
  pictures: PictureView[];
}

export interface PublicKin {
  role: 'dam' | 'sire';
  number: string;
  label: string;
  p: number;
  parents: PublicKin[];
}

export interface ShowcaseLine {
  animal: AnimalSummary;
  slug: string;
  publishedAt: string;
  claims: string[];
}
