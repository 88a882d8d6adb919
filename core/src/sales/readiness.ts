import type { Sureness } from '../pedigree/recorded-animal.ts';
import type { FactOf } from '../facts.ts';
import { informativeOffers } from '../husbandry/appetite.ts';
import type { History } from '../husbandry/history.ts';

/** The plan's step of feeding by hand: such a meal was not taken without help. */
const ASSISTED_STEP = 'assist';

/** When the collection calls a hatchling ready for sale. */
export interface SaleRules {
  /** ISO 4217. */
  readonly currency: string;
  /** Meals taken in a row without help. */
  readonly mealsInRow: number;
  readonly massG: number;
  /** The last shed came off in one piece. */
  readonly wholeShed: boolean;
}

/** Common practice, no source: three to five meals in a row, a clean shed, a weight that travels well. */
export const SALE_RULES: SaleRules = { currency: 'EUR', mealsInRow: 4, massG: 120, wholeShed: true };

/** What an animal lacks to be ready for sale. */
export interface SaleLacks {
  'too-few-meals': { readonly inRow: number; readonly needed: number };
  'too-light': { readonly massG: number; readonly neededG: number };
  'never-weighed': { readonly neededG: number };
  'no-shed-recorded': object;
  'shed-in-pieces': { readonly on: string };
}

/**
 * What an animal lacks to be ready for sale by the collection's rules; nothing where it is ready.
 *
 * @returns facts, in the order of the rules
 *
 * @example saleLacks({ hatchedOn: null, feedings: [], weights: [{ id: 'w', on: '2026-11-01', massG: 130 }], sheds: [{ id: 's', on: '2026-10-20', stage: 'shed', complete: true }], moves: [] }, { currency: 'EUR', mealsInRow: 4, massG: 120, wholeShed: true }).map(({ code }) => code) // ["too-few-meals"]
 */
export function saleLacks(history: History, rules: SaleRules): FactOf<SaleLacks>[] {
  const lacks: FactOf<SaleLacks>[] = [];
  const inRow = mealsWithoutHelp(history);
  if (inRow < rules.mealsInRow)
    lacks.push({ code: 'too-few-meals', facts: { inRow, needed: rules.mealsInRow } });
  const massG = history.weights.at(-1)?.massG;
  if (massG === undefined) lacks.push({ code: 'never-weighed', facts: { neededG: rules.massG } });
  else if (massG < rules.massG) lacks.push({ code: 'too-light', facts: { massG, neededG: rules.massG } });
  if (rules.wholeShed) {
    const shed = history.sheds.findLast(({ stage }) => stage === 'shed');
    if (!shed) lacks.push({ code: 'no-shed-recorded', facts: {} });
    else if (shed.complete === false) lacks.push({ code: 'shed-in-pieces', facts: { on: shed.on } });
  }
  return lacks;
}

/** Meals taken in a row, counted back from the last telling offer; one that was helped with ends the row. */
function mealsWithoutHelp(history: History): number {
  const offers = informativeOffers(history);
  const last = offers.findLastIndex(({ taken, step }) => !taken || step === ASSISTED_STEP);
  return offers.length - 1 - last;
}

/** What a record lacks that a buyer would ask for. */
export interface RecordGaps {
  'never-weighed': object;
  'never-fed': object;
  'no-picture': object;
  'not-sexed': object;
  'sex-unsure': { readonly sure: Sureness };
  'identification-unsure': { readonly sure: Sureness };
}

/** What is known of an animal besides its husbandry. */
export interface KnownOf {
  /** How sure its sex is; null where it was not sexed. */
  readonly sexSure: Sureness | null;
  /** How sure its identification is; null where it was not identified. */
  readonly identifiedSure: Sureness | null;
  readonly pictures: number;
}

/**
 * What a record lacks that a buyer would ask for: said to the breeder before it is published.
 *
 * @example recordGaps({ hatchedOn: null, feedings: [], weights: [], sheds: [], moves: [] }, { sexSure: 'certain', identifiedSure: 'certain', pictures: 1 }).map(({ code }) => code) // ["never-weighed", "never-fed"]
 */
export function recordGaps(history: History, known: KnownOf): FactOf<RecordGaps>[] {
  const gaps: (FactOf<RecordGaps> | null)[] = [
    history.weights.length === 0 ? { code: 'never-weighed', facts: {} } : null,
    history.feedings.length === 0 ? { code: 'never-fed', facts: {} } : null,
    known.pictures === 0 ? { code: 'no-picture', facts: {} } : null,
    known.sexSure === null ? { code: 'not-sexed', facts: {} } : null,
    known.sexSure !== null && known.sexSure !== 'certain'
      ? { code: 'sex-unsure', facts: { sure: known.sexSure } }
      : null,
    known.identifiedSure !== null && known.identifiedSure !== 'certain'
      ? { code: 'identification-unsure', facts: { sure: known.identifiedSure } }
      : null,
  ];
  return gaps.filter((gap) => gap !== null);
}
