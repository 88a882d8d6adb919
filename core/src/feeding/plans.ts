import type { PreySpecies, PreyState } from './prey.ts';

/** What a step changes against the meal as planned. One change at a time: whatever worked can then be named. */
export interface StepChange {
  readonly state?: PreyState | undefined;
  readonly species?: PreySpecies | undefined;
}

/** One thing to try with an animal that refuses. */
export interface PlanStep {
  /** Offers carry it: what was done then stays known when the plan is edited. */
  readonly key: string;
  readonly name: string;
  /** Offers before the next step. */
  readonly tries: number;
  readonly change?: StepChange | undefined;
  /** Not before so many days without a meal. */
  readonly afterDays?: number | undefined;
  /** Only while it loses weight. */
  readonly onlyLosing?: boolean | undefined;
  readonly caution?: string | undefined;
}

/** A start protocol with its ladder of refusals. */
export interface FeedingPlan {
  readonly id: string;
  readonly name: string;
  /** The first meals: so many taken with this prey, before the collection's usual prey. */
  readonly start: { readonly meals: number; readonly species: PreySpecies; readonly state: PreyState };
  /** In the order in which they are tried. The first is the meal as planned. */
  readonly steps: readonly PlanStep[];
}

const LIVE_CAUTION = 'Live rodents bite: never leave a live adult rodent alone with a snake.';
const ASSIST_CAUTION =
  'Taught hand to hand: by somebody who knows how, or a veterinarian. Done wrong it injures and kills.';
const SKULL_CAUTION = 'Gloves, away from kitchen surfaces; wash hands after it.';

/** Lines of the trade on what to try, in turn, each with its number of tries. Common practice, no source. */
export const REFUSAL_STEPS: readonly PlanStep[] = [
  { key: 'planned', name: 'As planned', tries: 2 },
  { key: 'wait', name: 'Wait and leave it alone, then offer again', tries: 1 },
  { key: 'warmer', name: 'Prey warmer, warmest at the head', tries: 2 },
  { key: 'dry-or-wet', name: 'The other way: dry instead of wet, another colour', tries: 1 },
  { key: 'dark', name: 'Another time, darker, left overnight', tries: 2 },
  { key: 'smaller-tub', name: 'A smaller tub, or back to the last where it ate', tries: 2 },
  { key: 'hide', name: 'A hide', tries: 1 },
  { key: 'husk', name: 'Coconut husk instead of paper', tries: 2 },
  { key: 'scent', name: 'Scented with bedding of live rodents', tries: 2 },
  {
    key: 'fresh-killed',
    name: 'Freshly killed prey',
    tries: 1,
    change: { state: 'fresh-killed' },
    afterDays: 14,
  },
  { key: 'skull', name: 'The skull of the prey opened', tries: 1, caution: SKULL_CAUTION, afterDays: 14 },
  { key: 'live', name: 'Live', tries: 2, change: { state: 'live' }, afterDays: 14, caution: LIVE_CAUTION },
  {
    key: 'other-species',
    name: 'Another prey species',
    tries: 2,
    change: { species: 'mouse' },
    afterDays: 21,
    caution: 'Mice are taken more readily, but some then refuse rats for life.',
  },
  {
    key: 'assist',
    name: 'Assist-feeding by somebody who knows how',
    tries: 1,
    afterDays: 28,
    onlyLosing: true,
    caution: ASSIST_CAUTION,
  },
];

/** Protocols of starting hatchlings. Common practice, no source; every plan is the keeper's to change. */
export const FEEDING_PLANS: readonly FeedingPlan[] = [
  {
    id: 'live-pinkies',
    name: 'Live rat pinkies, then frozen rats',
    start: { meals: 3, species: 'rat', state: 'live' },
    steps: REFUSAL_STEPS,
  },
  {
    id: 'frozen-first',
    name: 'Frozen-thawed from the first offer',
    start: { meals: 0, species: 'rat', state: 'frozen-thawed' },
    steps: REFUSAL_STEPS,
  },
  {
    id: 'small-mice',
    name: 'Small live mice, then rats',
    start: { meals: 5, species: 'mouse', state: 'live' },
    steps: REFUSAL_STEPS,
  },
];
