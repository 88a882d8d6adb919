import type {
  Appetite,
  Concern,
  ExpectedMass,
  FeedingPlan,
  FeedingRules,
  FreezerLine,
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
import type { FieldProblem } from './validate.ts';
import type { Problem } from './responses.ts';
import type { RoomAssumptions } from './husbandry-requests.ts';
import type { Sex } from './requests.ts';

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
  /** Words to read before touching it: "moved 3 days ago", "gravid". */
  flags: string[];
  /** What was recorded today already, in words. */
  done: { id: string; text: string; kind: string }[];
}
export interface RoundTub {
  tubId: string | null;
  level: number;
  slot: number;
  animals: RoundAnimal[];
}
export interface RoundRack {
  id: string;
  room: string;
  name: string;
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
  text: string;
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
  place: string;
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
    reaches: { what: string; massG: number; reach: Reach }[];
    percentile: { share: number; of: number } | null;
  } | null;
}

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
  /** What is wrong with it, in words; empty where all is well. */
  faults: string[];
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
  version: number;
  /** What is counted: so many animals, so many clutches. */
  rests: { animals: number; forSale: number; clutches: number };
}
