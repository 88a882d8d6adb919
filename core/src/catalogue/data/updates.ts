import type { Locus } from '../../loci/locus.ts';

/** How the catalogue read a locus before an update, where that changes what animals are said to carry. */
export interface CatalogueUpdate {
  /** The version that it made. */
  readonly version: string;
  /** Locus id -> what it had before, in place of what it has now; undefined: it had none. */
  readonly before: Readonly<Record<string, Partial<{ [K in keyof Locus]: Locus[K] | undefined }>>>;
}

/** The version whose readings collections have that were begun before updates were kept apart. */
export const FIRST_VERSION = '2026.3';

/**
 * The updates that change what animals are said to carry, the oldest first. Whoever changes how a locus is read notes here how
 * it was: a collection goes on with that until its keeper has seen what the update changes. Words, markers, names and genes that
 * are new change nothing that was said, and need no entry.
 */
export const CATALOGUE_UPDATES: readonly CatalogueUpdate[] = [
  {
    // On an animal that is white all over, a gene that was not named was taken as seen not to be there.
    version: '2026.4',
    before: { leucistic: { hides: undefined } },
  },
];

/**
 * The updates since a version, the oldest first.
 *
 * @example updatesSince('2026.3').map(({ version }) => version) // ["2026.4"]
 */
export const updatesSince = (version: string): readonly CatalogueUpdate[] =>
  CATALOGUE_UPDATES.filter((update) => isLater(update.version, version));

function isLater(a: string, b: string): boolean {
  const [yearA, nA] = a.split('.').map(Number);
  const [yearB, nB] = b.split('.').map(Number);
  return yearA! - yearB! > 0 || (yearA === yearB && nA! > nB!);
}

/** The locus as a version of the catalogue read it. */
export function locusAsOf(locus: Locus, version: string): Locus {
  const changes = updatesSince(version)
    .toReversed()
    .flatMap(({ before }) => before[locus.id] ?? []);
  if (changes.length === 0) return locus;
  const entries = Object.entries(Object.assign({ ...locus }, ...changes) as Locus);
  return Object.fromEntries(entries.filter(([, value]) => value !== undefined)) as unknown as Locus;
}
