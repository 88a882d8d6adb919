import type {
  HistoryAction,
  HistoryChange,
  HistoryLine,
  HistorySubject,
  RecordFact,
} from '@karyotome/contract';
import { KIND_WORDS, recordWords } from './records.ts';
import { capital } from './phrases.ts';
import type { Reader } from './reader.ts';

/** What was done to something, or with an account. */
export const HISTORY_ACTION_WORDS: Readonly<Record<HistoryAction, string>> = {
  added: 'added',
  changed: 'changed',
  removed: 'removed',
  'signed-in': 'signed in',
  'signed-out': 'signed out',
  'sign-in-failed': 'a sign-in failed',
  'password-changed': 'password changed',
  'second-factor-on': 'second factor turned on',
  'second-factor-off': 'second factor turned off',
  'recovery-code-used': 'signed in with a recovery code',
  'passkey-added': 'passkey added',
  'passkey-removed': 'passkey removed',
  exported: 'exported a table or key',
};

/** What a line is about. */
export const HISTORY_SUBJECT_WORDS: Readonly<Record<HistorySubject, string>> = {
  animal: 'animal',
  'bin-entry': 'deletion',
  import: 'file that came in',
  'import-word': 'meaning of a word in files',
  record: 'record',
  observation: 'observation',
  opinion: 'opinion',
  'opinion-link': 'address for an opinion',
  picture: 'picture',
  pairing: 'pairing',
  'pairing-sire': 'sire of a pairing',
  'pairing-event': 'pairing event',
  clutch: 'clutch',
  egg: 'egg',
  'egg-event': 'egg event',
  sorting: 'sorting of a clutch',
  rack: 'rack',
  tub: 'tub',
  ladder: 'ladder',
  'ladder-step': 'step of a ladder',
  'heat-zone': 'heat zone',
  'surface-check': 'surface check',
  incubator: 'incubator or room',
  'feeding-plan': 'feeding plan',
  stock: 'freezer stock',
  'catalogue-entry': 'catalogue entry',
  'label-sheet': 'sheet of labels',
  'printed-label': 'printed label',
  'clutch-card': 'clutch card',
  publication: 'public page',
  statement: 'statement',
  'hand-over': 'hand-over',
  offer: 'offer',
  'status-event': 'status',
  person: 'person',
  inquiry: 'inquiry',
  letter: 'letter',
  wish: 'wish',
  'wish-offer': 'offer to somebody who waits',
  breeder: 'breeder',
  'taken-statement': 'statement taken in',
  'signing-key': 'signing key',
  collection: 'settings and rules',
  member: 'member',
  invitation: 'invitation',
  token: 'token of a program',
  'animal-list': 'list of animals',
  project: 'project',
  'project-animal': 'animal of a project',
  'planned-pairing': 'planned pairing',
  webhook: 'webhook',
  'calendar-address': 'calendar address',
};

/** Columns whose name does not say in plain words what they hold. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  account_id: 'person',
  answer_until: 'answer by',
  as_of: 'as of',
  by_name: 'by',
  catalogue_version: 'version of the catalogue',
  completeness: 'what a statement leaves open',
  cool_c: 'cool end',
  dam_id: 'dam',
  did: 'key',
  edit: 'turned and cropped',
  every_days: 'checked every (days)',
  grants: 'may',
  high_c: 'highest temperature',
  id: 'id',
  incubation_c: 'incubation',
  is_drawing: 'is a drawing',
  ladder_id: 'ladder',
  low_c: 'lowest temperature',
  low_humidity: 'lowest humidity',
  mass_g: 'weight',
  mass_unit: 'weights in',
  max_g: 'up to',
  meals_before: 'meals before',
  min_g: 'from',
  must_not: 'must not',
  number_pattern: 'numbering',
  on_day: 'day',
  page_name: 'address of the front page',
  picture_ids: 'pictures',
  probe_fixed: 'probe fixed',
  set_c: 'set to',
  silent_after_hours: 'silent after (hours)',
  sire_id: 'sire',
  slot: 'place',
  slug: 'address of the page',
  step_position: 'step',
  temperature_unit: 'temperatures in',
  tub_id: 'tub',
  tubs_per_level: 'tubs per level',
  void_reason: 'reason',
  voided_at: 'voided',
  warm_c: 'warm end',
  withheld_reason: 'why a change is withheld',
};

const fieldWords = (field: string): string =>
  FIELD_WORDS[field] ?? field.replace(/_(on|at|id)$/, '').replaceAll('_', ' ');

const ID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;
const DAY = /^\d{4}-\d\d-\d\d$/;
const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d/;

/** A field as it is shown, before and after; empty where there was or is nothing, or nothing is kept. */
export interface ShownChange {
  readonly field: string;
  readonly was: string;
  readonly becomes: string;
}

/** A line in plain words. */
export interface ShownLine {
  readonly what: string;
  readonly changes: readonly ShownChange[];
}

const ABOUT: readonly string[] = ['animal_id', 'clutch_id', 'rack_id'];

type Tell = (field: string, value: unknown) => string;

/** @param moment - a moment (RFC 3339) by the farm's clocks */
export function historyWords(line: HistoryLine, reader: Reader, moment: (at: string) => string): ShownLine {
  const { action, subject, names } = line;
  if (subject === null) return { what: capital(HISTORY_ACTION_WORDS[action]), changes: [] };
  const tell: Tell = (field, value) => valueWords(field, value, { names, reader, moment });
  // What the line is about is told beside it.
  const changes = line.changes.filter(({ field }) => !ABOUT.includes(field));
  if (subject === 'bin-entry')
    return {
      what: BIN_WORDS[String(valueOf(line, 'state'))] ?? '',
      changes: shown(
        changes.filter(({ field }) => field !== 'state' && field !== 'number'),
        tell,
      ),
    };
  const record = recordIn(line);
  if (record)
    return {
      what: `${capital(KIND_WORDS[record.kind])} ${HISTORY_ACTION_WORDS[action]}: ${recordWords(record, reader)}`,
      changes: shown(
        changes.filter(({ field }) => field !== 'kind' && field !== 'body'),
        tell,
      ),
    };
  return {
    what: `${capital(HISTORY_SUBJECT_WORDS[subject])} ${HISTORY_ACTION_WORDS[action]}`,
    changes: shown(changes, tell),
  };
}

/** What a deletion became. */
const BIN_WORDS: Readonly<Record<string, string>> = {
  kept: 'Deleted',
  restored: 'Restored',
  erased: 'Erased',
};

/** What a field holds after the line, or held before. */
function valueOf({ changes }: Pick<HistoryLine, 'changes'>, name: string): unknown {
  const change = changes.find(({ field }) => field === name);
  return change?.becomes ?? change?.was;
}

/** A record that was added or removed whole. */
function recordIn({ subject, changes }: HistoryLine): RecordFact | null {
  if (subject !== 'record') return null;
  const [kind, body] = [valueOf({ changes }, 'kind'), valueOf({ changes }, 'body')];
  return typeof kind === 'string' && kind in KIND_WORDS && body !== undefined
    ? ({ kind, body } as RecordFact)
    : null;
}

/** Fields that hold nothing but ids nobody knows by name are left out. */
const shown = (changes: readonly HistoryChange[], tell: Tell): ShownChange[] =>
  changes
    .filter(({ was, becomes, field }) => !(isId(was) || isId(becomes)) || tell(field, was ?? becomes) !== '')
    .map(({ field, was, becomes }) => ({
      field: fieldWords(field),
      was: tell(field, was),
      becomes: tell(field, becomes),
    }));

const isId = (value: unknown): boolean => typeof value === 'string' && ID.test(value);

function valueWords(
  field: string,
  value: unknown,
  context: {
    readonly names: Readonly<Record<string, string>>;
    readonly reader: Reader;
    readonly moment: (at: string) => string;
  },
): string {
  const { names, reader, moment } = context;
  if (value === undefined || value === null) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') {
    if (/(_g|[a-z]G)$/.test(field)) return reader.mass(value);
    return /(_c|[a-z]C)$/.test(field) ? reader.temperature(value) : reader.number(value);
  }
  if (typeof value === 'string') {
    if (ID.test(value)) return names[value] ?? '';
    if (DAY.test(value)) return reader.day(value);
    return MOMENT.test(value) ? moment(value) : value;
  }
  if (Array.isArray(value))
    return value
      .map((one) => valueWords(field, one, context))
      .filter((text) => text !== '')
      .join(', ');
  return Object.entries(value)
    .map(([key, one]) => [key, valueWords(key, one, context)] as const)
    .filter(([, text]) => text !== '')
    .map(
      ([key, text]) =>
        `${fieldWords(key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`))}: ${text}`,
    )
    .join('; ');
}
