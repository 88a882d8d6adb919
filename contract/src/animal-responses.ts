import type {
  Appetite,
  FactOf,
  InShed,
  Meal,
  MoveAdvice,
  MoveOutcome,
  RecordGaps,
  SaleLacks,
} from '@karyotome/core';
import type { Sex } from './animal-status.ts';
import type { AnimalSummary, ParentView, PictureView, TubPlace } from './animal-summary.ts';
import type { PrintedLabelView } from './label-responses.ts';
import type { LadderStepInput } from './enclosure-requests.ts';
import type { ClaimView, ConflictView } from './genetics-responses.ts';
import type { AnimalCare } from './husbandry-responses.ts';
import type { RecordView } from './record-responses.ts';

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
  /** What it lacks to be ready for sale by the collection's rules. */
  lacks: FactOf<SaleLacks>[];
  /** What its record lacks that a buyer would ask for. */
  gaps: FactOf<RecordGaps>[];
  publication: { slug: string; publishedAt: string; text: string | null } | null;
  printedLabel: PrintedLabelView | null;
  /** Projects that it belongs to, and why. */
  projects: { id: string; name: string; reason: string | null; isEnded: boolean }[];
}

/** A picture of an older animal that looks the same. */
export interface GrownLook {
  animal: { id: string; number: string; sex: Sex };
  pictureId: string;
  isDrawing: boolean;
  /** In days, when it was taken. */
  ageDays: number;
}
