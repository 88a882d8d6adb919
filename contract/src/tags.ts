/**
 * Parts of what a collection holds. A write says which of them it changes, a read from which it is made: so whoever shows a
 * read knows when it went stale.
 */
export const TAGS = [
  'animals',
  /** Lists of animals that are kept under a name. */
  'lists',
  /** Dated records of animals, what is inferred from them included. */
  'records',
  'catalogue',
  /** Pairings, clutches and events of a season. */
  'breeding',
  /** Projects, their animals and planned pairings. */
  'projects',
  'eggs',
  /** Clutch cards that were drawn. */
  'cards',
  /** Incubators and rooms, and their readings. */
  'climate',
  'enclosures',
  'heat',
  /** Rules, plans and stock. */
  'feeding',
  'room',
  'observations',
  'sorting',
  'opinions',
  'labels',
  'pictures',
  'publications',
  /** Status of animals, offers, and rules of sale. */
  'sales',
  /** Buyers, and those who wait. */
  'persons',
  /** What visitors of public pages asked. */
  'inquiries',
  /** Letters to people. */
  'letters',
  /** Who waits for what. */
  'wishes',
  /** Statements of other breeders. */
  'taken',
  'calendars',
  /** Who may use the collection, and where they are signed in. */
  'members',
  /** Files that came in, or are to. */
  'imports',
  /** What was deleted, and can be restored. */
  'bin',
  /** Backups of the server. */
  'backups',
] as const;
export type Tag = (typeof TAGS)[number];
