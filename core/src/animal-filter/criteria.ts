import type { IsoDay } from '../calendar/days.ts';
import type { FactOf } from '../facts.ts';
import type { AnimalStatus } from '../sales/status-event.ts';

/** What can be asked of an animal. Masses in grams. */
export interface Criteria {
  sex: { readonly sex: 'female' | 'male' | 'unknown' };
  /** `least`: with at least this probability; null: likelier than not. */
  genes: { readonly text: string; readonly least: number | null };
  mass: { readonly fromG: number | null; readonly toG: number | null };
  /** Days since it hatched. */
  age: { readonly fromDays: number | null; readonly toDays: number | null };
  'hatched-in': { readonly year: number };
  status: { readonly status: AnimalStatus };
  /** Something of its breeding was seen in this season. */
  bred: { readonly season: number };
  /** In a rack or room of this name. */
  place: { readonly name: string };
  'without-tub': object;
  'of-clutch': { readonly name: string };
  /** Not weighed for so many days, or never. */
  'not-weighed': { readonly days: number };
  /** No meal taken for so many days, or never. */
  'not-eaten': { readonly days: number };
  /** At least so many meals refused in a row. */
  refused: { readonly meals: number };
  'in-shed': object;
  gravid: object;
  'in-quarantine': object;
  'under-treatment': object;
  'shows-signs': object;
  published: object;
}

/** One thing that is asked, or that it must not be. */
export type Criterion = FactOf<Criteria> & { readonly isNot: boolean };

/** What is asked of animals: of each clause at least one criterion holds. */
export interface AnimalFilter {
  readonly clauses: readonly (readonly Criterion[])[];
  /** Parts of the text that were not understood, as they were typed. */
  readonly unread: readonly string[];
}

/** What of an animal a filter reads. Its genes are asked by themselves. */
export interface FilteredAnimal {
  readonly sex: 'female' | 'male' | 'unknown';
  readonly massG: number | null;
  readonly weighedOn: IsoDay | null;
  readonly hatchedOn: IsoDay | null;
  readonly status: AnimalStatus;
  readonly room: string | null;
  readonly rack: string | null;
  readonly clutch: string | null;
  /** Seasons in which something of its breeding was seen: an introduction, a lock, an ovulation, eggs. */
  readonly seasons: readonly number[];
  readonly ateOn: IsoDay | null;
  readonly refusedInARow: number;
  readonly isInShed: boolean;
  readonly isGravid: boolean;
  readonly isInQuarantine: boolean;
  readonly isTreated: boolean;
  readonly showsSigns: boolean;
  readonly isPublished: boolean;
}
