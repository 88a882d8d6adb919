/** Where an animal stands between hatching and its new keeper. */
export type AnimalStatus =
  | 'undecided'
  | 'held-back'
  | 'for-sale'
  | 'reserved'
  | 'sold'
  | 'breeder'
  | 'died'
  | 'mistaken'
  /** Known from another breeder's statement. */
  | 'outside';

/** What happens to an animal's status, dated, and the status that follows. */
export const STATUS_AFTER = {
  undecided: 'undecided',
  'held-back': 'held-back',
  offered: 'for-sale',
  reserved: 'reserved',
  /** A reservation ran out: it is for sale again. */
  lapsed: 'for-sale',
  sold: 'sold',
  /** A reservation was given up, or a sold animal was taken back. */
  'gone-back': 'undecided',
  /** Not for sale any more. */
  withdrawn: 'undecided',
  breeder: 'breeder',
  died: 'died',
  mistaken: 'mistaken',
  /** Not of this collection after all: only what is known of it stays. */
  outside: 'outside',
} as const satisfies Record<string, AnimalStatus>;

export type StatusEventKind = keyof typeof STATUS_AFTER;
export const STATUS_EVENT_KINDS = Object.keys(STATUS_AFTER) as readonly StatusEventKind[];

/** A reservation holds so many days where nothing else was agreed: two weeks to pay a deposit. Common practice, no source. */
export const RESERVATION_DAYS = 14;

/** From which status each may follow; of one that is not listed: from every other one. */
const FOLLOWS: { readonly [Kind in StatusEventKind]?: readonly AnimalStatus[] } = {
  offered: ['undecided', 'held-back', 'for-sale', 'breeder'],
  reserved: ['undecided', 'held-back', 'for-sale', 'reserved', 'breeder'],
  lapsed: ['reserved'],
  sold: ['undecided', 'held-back', 'for-sale', 'reserved', 'breeder'],
  'gone-back': ['reserved', 'sold'],
  withdrawn: ['for-sale', 'reserved'],
  'held-back': ['undecided', 'held-back', 'for-sale', 'breeder'],
};

/**
 * Whether something may happen to an animal of a status. What leaves the status as it is may be said again; who it is
 * reserved for may change.
 *
 * @example mayFollow('gone-back', 'for-sale') // false
 */
export function mayFollow(kind: StatusEventKind, status: AnimalStatus): boolean {
  return FOLLOWS[kind]?.includes(status) ?? true;
}

/**
 * The kind of event that brings an animal to a status, where nothing more is known of it.
 *
 * @example kindFor('for-sale') // "offered"
 */
export function kindFor(status: AnimalStatus): StatusEventKind {
  return status === 'for-sale' ? 'offered' : status;
}

/** An event as far as the status depends on it. */
export interface StatusEvent {
  readonly kind: StatusEventKind;
  /** The status that it met. */
  readonly before: AnimalStatus;
  readonly isVoided: boolean;
}

/**
 * The status that an animal's events leave it with: that of the last one that stands, or else the one that the first of all
 * met.
 *
 * @param events - in the order in which they happened, voided ones included
 * @returns null where nothing ever happened
 *
 * @example statusFrom([{ kind: 'offered', before: 'undecided', isVoided: false }, { kind: 'sold', before: 'for-sale', isVoided: true }]) // "for-sale"
 */
export function statusFrom(events: readonly StatusEvent[]): AnimalStatus | null {
  const last = events.findLast(({ isVoided }) => !isVoided);
  return last ? STATUS_AFTER[last.kind] : (events[0]?.before ?? null);
}
