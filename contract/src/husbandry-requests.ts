import {
  PREY_SIZES,
  type FeedingPlan,
  type FeedingRules,
  type OrderRules,
  type PlanStep,
  type WeightClass,
} from '@karyotome/core';
import Joi from 'joi';
import { actKey, noTwo, id, massG, optional, pastDay, text, type Optional } from './fields.ts';
import { newRecord, type NewRecord } from './records.ts';

/** Where a round leads besides to racks. */
export const WITHOUT_TUB = 'without-tub';
export const IN_QUARANTINE = 'in-quarantine';

const share = (): Joi.NumberSchema => Joi.number().min(0).max(1);
const days = (most = 365): Joi.NumberSchema => Joi.number().integer().min(1).max(most);
export const PREY_STATES = ['live', 'frozen-thawed', 'fresh-killed'] as const;
export const LIGHTS = ['light', 'dim', 'dark'] as const;
export type Light = (typeof LIGHTS)[number];

// Lists that core reads only are no arrays to Joi's strict types: these two are checked by their tests.
export const feedingRules = Joi.object<FeedingRules>({
  classes: Joi.array<WeightClass[]>()
    .items(
      Joi.object<WeightClass, true>({
        belowG: massG().allow(null).required(),
        share: Joi.number().min(0.005).max(0.5).required(),
        everyDays: days(120).required(),
      }),
    )
    .min(1)
    .max(8)
    .required()
    .custom((classes: WeightClass[], helpers) => {
      const ends = classes.map(({ belowG }) => belowG ?? Infinity);
      const rising = ends.every((end, i) => i === 0 || end > ends[i - 1]!);
      return rising && ends.at(-1) === Infinity ? classes : helpers.error('classes.order');
    }),
  species: Joi.string().valid('rat', 'mouse').required(),
  firstMealAfterShedDays: Joi.number().integer().min(0).max(60).required(),
  restDays: days(60).required(),
  afterRestShare: Joi.number().min(0.1).max(1).required(),
  offerInShed: Joi.boolean().required(),
  offerGravid: Joi.boolean().required(),
  adultG: massG().required(),
  fastMonths: Joi.array<number[]>()
    .items(Joi.number().integer().min(1).max(12))
    .max(12)
    .custom(noTwo())
    .required(),
  fastingEveryDays: days(120).required(),
  cleanEveryDays: days(120).required(),
}).messages({ 'classes.order': 'must rise from class to class, and the last has no upper end' });

export interface RulesChange {
  feeding: FeedingRules;
  order: OrderRules;
}
export const rulesChange = Joi.object<RulesChange, true>({
  feeding: feedingRules.required(),
  order: Joi.object<OrderRules, true>({
    leadDays: days(180).required(),
    service: Joi.number().min(0.5).max(0.999).required(),
  }).required(),
});

const STEP_KEY = /^[a-z0-9][a-z0-9-]{0,39}$/;
export type PlanInput = Omit<FeedingPlan, 'id'>;
export const planInput = Joi.object<PlanInput>({
  name: text(80).min(1).required(),
  start: Joi.object<PlanInput['start'], true>({
    meals: Joi.number().integer().min(0).max(50).required(),
    species: Joi.string().valid('rat', 'mouse').required(),
    state: Joi.string()
      .valid(...PREY_STATES)
      .required(),
  }).required(),
  steps: Joi.array<PlanStep[]>()
    .items(
      Joi.object<PlanStep, true>({
        key: Joi.string().pattern(STEP_KEY).required(),
        name: text(120).min(1).required(),
        tries: Joi.number().integer().min(1).max(20).required(),
        change: Joi.object<NonNullable<PlanStep['change']>, true>({
          state: Joi.string().valid(...PREY_STATES),
          species: Joi.string().valid('rat', 'mouse'),
        }),
        afterDays: Joi.number().integer().min(0).max(180),
        onlyLosing: Joi.boolean(),
        caution: text(300),
      }),
    )
    .custom(noTwo('key'))
    .min(1)
    .max(30)
    .required(),
});

/** The prey that is counted: "rat pup". */
export const PREY_NAMES: readonly string[] = PREY_SIZES.map(({ species, size }) => `${species} ${size}`);

export interface NewStockEntry {
  prey: string;
  kind: 'receipt' | 'count' | 'loss';
  quantity: number;
  on: string;
  note?: Optional<string>;
}
export const newStockEntry = Joi.object<NewStockEntry, true>({
  prey: Joi.string()
    .valid(...PREY_NAMES)
    .required(),
  kind: Joi.string().valid('receipt', 'count', 'loss').required(),
  quantity: Joi.number()
    .integer()
    .min(0)
    .max(100_000)
    .required()
    .when('kind', { not: 'count', then: Joi.number().min(1) }),
  on: pastDay().required(),
  note: optional(text(300).allow('')),
});

/** One act of a round: a record, or the taking back of one that was sent before. Each has its own key. */
export type RoundEntry = { key: string; animalId: string; record: NewRecord } | { key: string; undo: string };
export interface RoundEntries {
  entries: RoundEntry[];
  /** Whose they are, as the device has it. */
  accountId?: Optional<string>;
}
export const MOST_ENTRIES = 200;
/** Only the frame is checked here: an entry that is wrong is refused alone, and does not hold up the others. */
export const roundEntries = Joi.object<{ entries: unknown[]; accountId?: Optional<string> }>({
  entries: Joi.array().items(Joi.any()).min(1).max(MOST_ENTRIES).custom(noTwo('key')).required(),
  accountId: optional(id()),
});
export const roundEntry = Joi.object({
  key: actKey().required(),
  animalId: id(),
  record: newRecord,
  undo: actKey(),
})
  .xor('record', 'undo')
  .and('record', 'animalId') as Joi.Schema as Joi.ObjectSchema<RoundEntry>;

export interface ManyMoves {
  moves: { animalId: string; toTubId: string | null }[];
  reason: string;
  on: string;
}
export const manyMoves = Joi.object<ManyMoves, true>({
  moves: Joi.array<ManyMoves['moves']>()
    .items(
      Joi.object<ManyMoves['moves'][number], true>({
        animalId: id().required(),
        toTubId: id().allow(null).required(),
      }),
    )
    .custom(noTwo('animalId'))
    .min(1)
    .max(200)
    .required(),
  reason: text(300).min(1).required(),
  on: pastDay().required(),
});
export interface TakenBack {
  ids: string[];
}
export const takenBack = Joi.object<TakenBack, true>({
  ids: Joi.array<string[]>().items(id()).min(1).max(200).custom(noTwo()).required(),
});

export interface RackChange {
  room: string;
  name: string;
  levels: number;
  tubsPerLevel: number;
}
export const rackChange = Joi.object<RackChange, true>({
  room: text(60).min(1).required(),
  name: text(60).min(1).required(),
  levels: Joi.number().integer().min(1).max(20).required(),
  tubsPerLevel: Joi.number().integer().min(1).max(20).required(),
});

const celsius = (): Joi.NumberSchema => Joi.number().min(5).max(60);
export interface HeatZoneInput {
  rackId: string;
  name: string;
  warmC: number;
  coolC: number;
  thermostat: boolean;
  everyDays: number;
}
export const heatZoneInput = Joi.object<HeatZoneInput, true>({
  rackId: id().required(),
  name: text(60).min(1).required(),
  warmC: celsius().required(),
  coolC: celsius().less(Joi.ref('warmC')).required(),
  thermostat: Joi.boolean().required(),
  everyDays: days(365).required(),
}).messages({ 'number.less': 'must be cooler than the warm side' });

export interface SurfaceCheck {
  on: string;
  warmC: number;
  coolC: number;
  probeFixed: boolean;
  note?: Optional<string>;
}
export const surfaceCheck = Joi.object<SurfaceCheck, true>({
  on: pastDay().required(),
  warmC: celsius().required(),
  coolC: celsius().required(),
  probeFixed: Joi.boolean().required(),
  note: optional(text(300).allow('')),
});

/** What the keeper supposes about hatching and selling when places are forecast. */
export interface RoomAssumptions {
  saleAgeWeeks: number;
  salePace: number;
  heldBack: number;
}
export const roomAssumptions = Joi.object<RoomAssumptions, true>({
  saleAgeWeeks: Joi.number().integer().min(0).max(156).required(),
  salePace: share().required(),
  heldBack: share().required(),
});
