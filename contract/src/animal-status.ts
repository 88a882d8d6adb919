/* Apart from the schemas of animals, which the browser need not load to know what there is. */

export const SEXES = ['female', 'male', 'unknown'] as const;

export type Sex = (typeof SEXES)[number];

export const STATUSES = [
  'undecided',
  'held-back',
  'for-sale',
  'reserved',
  'sold',
  'breeder',
  'died',
  /** Entered by mistake: it keeps its number and history, and is counted nowhere. */
  'mistaken',
  /** Never of this collection: known from another breeder's statement. */
  'outside',
] as const;

export type Status = (typeof STATUSES)[number];

/** Those that somebody may enter; how an animal comes to be known from elsewhere is by taking in a statement. */
export const ENTERED_STATUSES = STATUSES.filter((status) => status !== 'outside');

/** Not here any more, or never was: no daily work, no place, no plans. */
export const GONE: readonly Status[] = ['sold', 'died', 'mistaken', 'outside'];

export const isGone = ({ status }: { status: Status }): boolean => GONE.includes(status);
