import type { RecordKind } from '../records.ts';
import type { ChangeEvent } from '../session-responses.ts';
import { TAGS, type Tag } from '../tags.ts';
import { CHANGED } from './changed-by-writes.ts';
import { ROUTES } from './index.ts';
import type { Route } from './route.ts';

type Name = keyof typeof ROUTES;

/** What is inferred of an animal's genes, and so its label. */
const LABEL = ['animals', 'records', 'catalogue', 'breeding'] as const;
/** All that a line of an animal shows (`AnimalSummary`). */
const SUMMARY = [...LABEL, 'enclosures', 'pictures', 'publications'] as const;

/** What reads are made from. One that is not listed may be made from everything. */
const MADE_FROM: { readonly [N in Name]?: readonly Tag[] } = {
  // A search may ask for anything that is known of an animal.
  animals: [...SUMMARY, 'breeding', 'feeding'],
  animalFilter: ['catalogue', 'enclosures', 'breeding'],
  animalLists: ['lists'],
  grownLooks: [...LABEL, 'pictures'],
  growth: ['animals', 'records', 'breeding'],
  search: [...SUMMARY, 'breeding', 'persons'],
  animal: [...SUMMARY, 'eggs', 'feeding', 'labels', 'projects'],
  catalogue: ['catalogue', 'records'],
  geneOccurrence: ['catalogue', 'records'],
  unprovenGenes: LABEL,
  tryCatalogueUpdate: LABEL,
  devices: ['members'],
  secondFactor: ['members'],
  passkeys: ['members'],
  tokens: ['members'],
  members: ['members'],
  invitations: ['members'],
  webhooks: ['members'],
  imports: ['imports', 'members'],
  import: ['imports', 'animals', 'catalogue'],
  bin: ['bin', 'animals', 'pictures'],
  backup: ['backups'],
  exportAll: TAGS,
  exportPedigree: TAGS,
  exportPlink: TAGS,
  exportWeights: TAGS,
  exportMeals: TAGS,
  exportReadings: TAGS,
  history: TAGS,
  historyTable: TAGS,
  contradictions: LABEL,
  suspects: LABEL,
  doubtful: LABEL,
  surprises: LABEL,
  claimDetail: LABEL,
  kin: LABEL,
  season: [...LABEL, 'eggs'],
  seasonFemales: [...LABEL, 'eggs'],
  seasonMales: LABEL,
  relatedMates: LABEL,
  pairings: [...LABEL, 'eggs'],
  planner: [...LABEL, 'eggs'],
  projects: [...LABEL, 'eggs', 'projects'],
  project: [...SUMMARY, 'eggs', 'projects'],
  hatchRates: ['breeding', 'eggs', 'climate'],
  clutch: [...LABEL, 'eggs', 'cards', 'climate', 'pictures'],
  incubators: ['climate', 'breeding', 'eggs'],
  rooms: ['climate'],
  bench: [...SUMMARY, 'eggs', 'observations', 'sorting', 'opinions', 'labels'],
  calls: LABEL,
  setUpProposal: ['animals', 'records', 'enclosures'],
  today: [...SUMMARY, 'eggs', 'climate', 'heat', 'feeding'],
  // Its stamps count every change of what states are computed from, also of what a round does not show.
  round: [...LABEL, 'eggs', 'enclosures', 'feeding', 'sales', 'taken'],
  roundRack: [...LABEL, 'enclosures', 'feeding'],
  sheds: [...LABEL, 'enclosures', 'feeding'],
  healthCases: SUMMARY,
  miteWatches: ['animals', 'records', 'enclosures'],
  feeding: [...LABEL, 'enclosures', 'feeding'],
  feedingNight: [...LABEL, 'enclosures', 'feeding'],
  feedingLessons: ['animals', 'records', 'enclosures', 'feeding'],
  room: [...LABEL, 'enclosures', 'eggs', 'climate', 'room', 'sales'],
  racks: ['animals', 'records', 'enclosures', 'heat'],
  tubs: ['animals', 'records', 'enclosures'],
  rack: [...LABEL, 'enclosures', 'heat', 'feeding'],
  ladders: ['enclosures'],
  learnedMoves: ['animals', 'records', 'enclosures'],
  showcase: SUMMARY,
  amendment: [...LABEL, 'publications'],
  signingKeys: ['publications'],
  sales: [...SUMMARY, 'sales', 'persons'],
  salesSettings: ['sales'],
  desk: [...SUMMARY, 'sales'],
  statusEvents: ['sales', 'persons'],
  offer: ['sales'],
  persons: ['persons', 'animals', 'sales'],
  inquiries: ['inquiries', 'animals'],
  wishes: [...LABEL, 'wishes', 'persons', 'sales'],
  pairingWaits: [...LABEL, 'eggs', 'wishes'],
  animalWaits: [...LABEL, 'wishes', 'persons', 'sales'],
  post: ['letters'],
  letters: ['letters', 'persons', 'animals'],
  receivedLetter: ['letters'],
  taken: ['taken', 'animals'],
  breeders: ['taken'],
  calendarFeeds: ['calendars'],
};

const changedBy = new Map<Route, readonly Tag[]>(
  Object.entries(CHANGED).map(([name, tags]) => [ROUTES[name as Name] as Route, tags]),
);

/** Records of daily work: they say nothing of genes, nor of who lives where. */
const DAILY_WORK: ReadonlySet<RecordKind> = new Set<RecordKind>([
  'weight',
  'feeding',
  'shed',
  'care',
  'dose',
  'note',
]);

/** The animals whose daily work a body records; null where it is, or may be, something else. */
function animalsOf(write: Route, id: string | undefined, body: unknown): string[] | null {
  const isDaily = (record: unknown): boolean =>
    DAILY_WORK.has((record as { kind?: RecordKind } | null | undefined)?.kind as RecordKind);
  if (write === ROUTES.addRecord && id !== undefined) return isDaily(body) ? [id] : null;
  if (write !== ROUTES.sendRound) return null;
  // An entry that is wrong is refused alone: here it may be anything.
  const { entries } = body as { readonly entries: readonly (SentEntry | null)[] };
  const animals = new Set<string>();
  for (const entry of entries) {
    if (entry?.animalId === undefined || !isDaily(entry.record)) return null;
    animals.add(entry.animalId);
  }
  return [...animals];
}
interface SentEntry {
  readonly animalId?: string;
  readonly record?: unknown;
}

/**
 * What a write has changed, as others are told.
 *
 * @param id - of its address
 * @param body - as it was sent
 */
export function changeOf(write: Route, id?: string, body?: unknown): ChangeEvent {
  const animals = animalsOf(write, id, body);
  return { tags: tagsChangedBy(write), ...(animals === null ? {} : { animals }) };
}

/** What two changes are together. */
export const bothChanges = (one: ChangeEvent, other: ChangeEvent): ChangeEvent => ({
  tags: [...new Set([...one.tags, ...other.tags])],
  ...(one.animals && other.animals ? { animals: [...new Set([...one.animals, ...other.animals])] } : {}),
});

/** What a write changes. */
export const tagsChangedBy = (write: Route): readonly Tag[] => changedBy.get(write) ?? TAGS;

/** Reads of one animal, by its id. */
const OF_ONE_ANIMAL: readonly string[] = ['animal'] satisfies Name[];

/**
 * Whether a read, by its route's name, is made from what changed. Of a name that is not known: yes.
 *
 * @param of - the id that it was asked by
 */
export function isMadeFrom(name: string, { tags, animals }: ChangeEvent, of?: string): boolean {
  if (animals && of !== undefined && OF_ONE_ANIMAL.includes(name) && !animals.includes(of)) return false;
  const from = Object.hasOwn(MADE_FROM, name) ? MADE_FROM[name as Name] : undefined;
  return tags.length > 0 && (from?.some((tag) => tags.includes(tag)) ?? true);
}
