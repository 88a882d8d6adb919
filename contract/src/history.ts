/** What a line of the history is about. */
export const HISTORY_SUBJECTS = [
  'animal',
  'bin-entry',
  'import',
  'import-word',
  'record',
  'observation',
  'opinion',
  'opinion-link',
  'picture',
  'pairing',
  'pairing-sire',
  'pairing-event',
  'clutch',
  'egg',
  'egg-event',
  'sorting',
  'rack',
  'tub',
  'ladder',
  'ladder-step',
  'heat-zone',
  'surface-check',
  'incubator',
  'feeding-plan',
  'stock',
  'catalogue-entry',
  'label-sheet',
  'printed-label',
  'clutch-card',
  'publication',
  'statement',
  'hand-over',
  'offer',
  'status-event',
  'person',
  'inquiry',
  'letter',
  'wish',
  'wish-offer',
  'breeder',
  'taken-statement',
  'signing-key',
  'collection',
  'member',
  'invitation',
  'token',
  'animal-list',
  'project',
  'project-animal',
  'planned-pairing',
  'webhook',
  'calendar-address',
] as const;
export type HistorySubject = (typeof HISTORY_SUBJECTS)[number];

/** What was done: to a row, or by somebody with their account. */
export const HISTORY_ACTIONS = [
  'added',
  'changed',
  'removed',
  'signed-in',
  'signed-out',
  'sign-in-failed',
  'password-changed',
  'second-factor-on',
  'second-factor-off',
  'recovery-code-used',
  'passkey-added',
  'passkey-removed',
  'exported',
] as const;
export type HistoryAction = (typeof HISTORY_ACTIONS)[number];

/** A field before and after; both absent for data about people, which is not copied into the history. */
export interface HistoryChange {
  /** The column. */
  field: string;
  was?: unknown;
  becomes?: unknown;
}

/** One write, as the database kept it. */
export interface HistoryLine {
  id: string;
  /** RFC 3339. */
  at: string;
  action: HistoryAction;
  /** Null for what somebody did with their account. */
  subject: HistorySubject | null;
  /** Who; null for what is done by itself, and for visitors. */
  by: string | null;
  /** The token of the program that acted for them; null for themselves. */
  program: string | null;
  /** What the browser or program called itself. */
  device: string | null;
  /** `isHere` unless it was deleted since. */
  animal: { id: string; number: string; isHere: boolean } | null;
  clutch: { id: string; name: string } | null;
  rack: { id: string; name: string } | null;
  changes: HistoryChange[];
  /** What ids among the values stand for: animals by number, tubs by rack and place. */
  names: Record<string, string>;
}

/** What the history can be asked for. */
export const HISTORY_FILTERS = [
  'animalId',
  'clutchId',
  'rackId',
  'accountId',
  'subject',
  'from',
  'to',
  'search',
] as const;
export type HistoryFilter = (typeof HISTORY_FILTERS)[number];
