import type {
  LearnedPace,
  Appetite,
  Concern,
  Concerns,
  ExpectedMass,
  FactOf,
  FeedingPlan,
  FeedingRules,
  FreezerLine,
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
import type { Sex } from './animal-requests.ts';

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
  flags: RoundFlag[];
  /** What was recorded today already. */
  done: (RecordFact & { id: string })[];
}
/** What to know of an animal before touching it. */
export interface RoundFlags extends Concerns {
  gravid: object;
  digesting: { daysSinceMeal: number };
  settling: { days: number };
}
export type RoundFlag = FactOf<RoundFlags>;

export interface RoundTub {
  tubId: string | null;
  level: number;
  slot: number;
  animals: RoundAnimal[];
}
export interface RoundRack {
  id: string;
  room: string;
  /** Null: animals that have no tub. */
  name: string | null;
  tubs: RoundTub[];
}
export interface RoundView {
  today: string;
  /** When the server put this together. */
  at: string;
  racks: RoundRack[];
  plans: FeedingPlan[];
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
/** Everything about feeding: the night, the freezer, the rules, the plans, what worked. */
export interface FeedingView {
  today: string;
  rules: FeedingRules;
  order: OrderRules;
  rulesVersion: number;
  plans: (FeedingPlan & { version: number; builtIn: boolean; changed: boolean; animals: number })[];
  night: FeedingNightLine[];
  thaw: { prey: string; count: number }[];
  freezer: FreezerLine[];
  stock: StockEntryView[];
  worked: Worked[];
  /** Days between meals taken: the middle, and half of all lie between the other two. */
  intervals: { low: number; mid: number; high: number; of: number } | null;
}
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
