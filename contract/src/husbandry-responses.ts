import type {
  LearnedPace,
  Appetite,
  Concern,
  ExpectedMass,
  FactOf,
  FeedingPlan,
  FeedingRules,
  FreezerLine,
  HandlingFlag,
  HealthState,
  LoanRecord,
  HeatFault,
  LearnedMoves,
  Meal,
  OrderRules,
  Outlier,
  Reach,
  RoomQuestion,
  ShedCycle,
  SoakPlan,
  Worked,
} from '@karyotome/core';
import type { FieldProblem } from './problem.ts';
import type { Problem } from './problem.ts';
import type { RecordFact } from './record-responses.ts';
import type { TubPlace } from './animal-summary.ts';
import type { RoomAssumptions } from './husbandry-requests.ts';
import type { Sex } from './animal-status.ts';

/** An animal as a round needs it: enough to log by, without a connection. */
export interface RoundAnimal {
  id: string;
  number: string;
  label: string;
  sex: Sex;
  massG: number | null;
  weighedOn: string | null;
  /** What a weighing today should show. */
  expected: ExpectedMass | null;
  meal: Meal | null;
  appetite: Appetite;
  shed: ShedCycle | null;
  soak: SoakPlan | null;
  /** What to know before touching it. */
  flags: HandlingFlag[];
  /** What was recorded today already. */
  done: (RecordFact & { id: string })[];
}

export interface RoundTub {
  tubId: string | null;
  /** The rack that it stands in, where a round leads to tubs of several. */
  rack?: string | null;
  level: number;
  slot: number;
  animals: RoundAnimal[];
}
export interface RoundRack {
  /** Of a rack, or `WITHOUT_TUB`, or `IN_QUARANTINE`: those in quarantine have a round of their own, the last. */
  id: string;
  room: string;
  /** Null where it is no rack. */
  name: string | null;
  tubs: RoundTub[];
}
/** Where a round leads; each rack is read by itself. */
export interface RoundView {
  today: string;
  /** When the server put this together. */
  at: string;
  /** In walking order; its stamp changes with what a round shows of it. */
  racks: { id: string; room: string; name: string | null; animals: number; stamp: string }[];
  plans: FeedingPlan[];
}

/** Who is in shed, keeps a rest of it, or waits for the first. */
export interface ShedsView {
  today: string;
  racks: RoundRack[];
}

/** Of an entry: kept, or refused for good. What failed, or got no answer, is sent again. */
export type RoundResult =
  | { key: string; status: 'kept'; id: string; alike: AlikeRecord[] }
  | { key: string; status: 'taken-back' }
  | { key: string; status: 'failed' }
  | {
      key: string;
      status: 'refused';
      problem: Pick<Problem, 'title' | 'detail'> & { errors: FieldProblem[] };
    };
/** Another record of the same kind, animal and day: logged twice, or twice in truth. */
export interface AlikeRecord {
  id: string;
  record: RecordFact;
  author: string;
  at: string;
}

export interface StockEntryView {
  id: string;
  prey: string;
  kind: 'receipt' | 'count' | 'loss';
  quantity: number;
  on: string;
  note: string | null;
  author: string;
}
/** What feeding goes by, and the freezer. */
export interface FeedingView {
  today: string;
  rules: FeedingRules;
  order: OrderRules;
  rulesVersion: number;
  plans: (FeedingPlan & { version: number; builtIn: boolean; changed: boolean; animals: number })[];
  thaw: { prey: string; count: number }[];
  freezer: FreezerLine[];
  stock: StockEntryView[];
}
/** What the collection's records teach about feeding. */
export interface FeedingLessons {
  worked: Worked[];
  /** Days between meals taken: the middle, and half of all lie between the other two. */
  intervals: { low: number; mid: number; high: number; of: number } | null;
}
/** An animal whose day has come: it eats tonight, or is passed over. */
export interface FeedingNightLine {
  id: string;
  number: string;
  place: TubPlace | null;
  meal: Meal;
}

export interface AnimalCare {
  plan: FeedingPlan;
  own: {
    planId?: string;
    everyDays?: number;
    share?: number;
    species?: 'rat' | 'mouse';
    stayUntilG?: number;
  };
  worked: Worked[];
  shed: ShedCycle | null;
  soak: SoakPlan | null;
  health: HealthState;
  /** The breeding loan that runs. */
  loan: LoanRecord | null;
  concerns: Concern[];
  growth: {
    band: ExpectedMass[];
    outliers: Outlier[];
    /** What comes next: the end of its step, a weight for sale, a weight to breed at. */
    reaches: (Milestone & { massG: number; reach: Reach })[];
    percentile: { share: number; of: number } | null;
  } | null;
}

/** A mass worth waiting for. */
export interface Milestones {
  'outgrows-step': { step: string };
  'sale-mass': object;
  'breeding-mass': object;
}
export type Milestone = FactOf<Milestones>;

export interface HeatZoneView {
  id: string;
  rackId: string;
  name: string;
  warmC: number;
  coolC: number;
  thermostat: boolean;
  everyDays: number;
  version: number;
  lastCheck: {
    id: string;
    on: string;
    warmC: number;
    coolC: number;
    probeFixed: boolean;
    note: string | null;
    author: string;
  } | null;
  /** What is wrong with it; empty where all is well. */
  faults: HeatFault[];
  dueOn: string;
}

export interface LearnedView {
  kinds: LearnedMoves[];
  /** Of one a tenth heavier: how much sooner it eats, as a ratio with its 95% interval; null where that is not settled. */
  heavier: { ratio: number; low: number; high: number } | null;
}

export interface RoomView {
  today: string;
  question: RoomQuestion;
  assumptions: RoomAssumptions;
  /** What the records of sales teach of their pace; null while there are too few. */
  learned: LearnedPace | null;
  version: number;
  /** What is counted: so many animals, so many clutches. */
  rests: { animals: number; forSale: number; clutches: number };
}
