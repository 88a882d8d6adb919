import type {
  Grant,
  BackupFault,
  NewRecord,
  RecordBodies,
  RecordFact,
  RecordKind,
  RecordWarning,
  Role,
  StartProtocol,
  TokenScope,
  TubPlace,
} from '@karyotome/contract';
import {
  parseSeasonNumber,
  type CareAct,
  type HandlingFlag,
  type HandlingFlags,
  type NumberPattern,
  type ShedStage,
} from '@karyotome/core';
import { HEALTH_FLAGS, HEALTH_RECORDS } from './health.ts';
import { CONCERNS } from './husbandry.ts';
import { onLoanWords, ORIGIN_RECORDS } from './origin.ts';
import { capital, say, type Phrases } from './phrases.ts';
import type { Reader } from './reader.ts';

export const KIND_WORDS: Readonly<Record<RecordKind, string>> = {
  weight: 'Weight',
  feeding: 'Meal',
  shed: 'Shed',
  sex: 'Sex',
  identification: 'Identification',
  move: 'Move',
  plan: 'Feeding plan',
  care: 'Care',
  'own-way': 'Individual rules',
  'health-check': 'Health check',
  'vet-visit': 'Visit to a veterinarian',
  treatment: 'Treatment',
  dose: 'Dose',
  'treatment-end': 'End of a treatment',
  quarantine: 'Quarantine',
  'post-mortem': 'Post-mortem examination',
  acquisition: 'Acquisition',
  loan: 'Breeding loan',
  'loan-end': 'End of a breeding loan',
  note: 'Private note',
};

/** What an animal is called of which nobody said yet what it is. */
export const NOT_IDENTIFIED = 'Not identified';

export const sexWords = (sex: string): string => (sex === 'unknown' ? 'not sexed' : sex);

export const CARE_WORDS: Readonly<Record<CareAct, string>> = {
  'not-offered': 'Passed over',
  cleaned: 'Tub cleaned',
  'caps-checked': 'Eye caps checked: both off',
  soaked: 'Soaked',
  pushing: 'Pushes at its tub',
  regurgitated: 'Regurgitated',
};

export const PLAN_WORDS: Readonly<Record<StartProtocol, string>> = {
  'live-pinkies': 'Live rat pinkies first, then frozen',
  'frozen-first': 'Frozen-thawed from the first offer',
  'small-mice': 'Small live mice first, then rats',
};

export const SHED_STAGE_WORDS: Readonly<Record<ShedStage, string>> = {
  dull: 'dull, pink belly',
  blue: 'blue eyes',
  clear: 'clear again',
  shed: 'has shed',
};

export const STATE_WORDS: Readonly<Record<RecordBodies['feeding']['state'], string>> = {
  'frozen-thawed': 'frozen-thawed',
  'fresh-killed': 'freshly killed',
  live: 'live',
};

export const SEXING_WORDS: Readonly<Record<RecordBodies['sex']['method'], string>> = {
  popped: 'popped',
  probed: 'probed',
  genes: 'by its genes',
  bred: 'has bred',
  stated: 'as stated',
};

/** What an animal has of its own instead of the collection's rules, in one line. */
export function ownRulesWords(
  { everyDays, share, species, stayUntilG, planId }: RecordBodies['own-way'],
  reader: Reader,
): string {
  const parts = [
    everyDays ? `fed every ${reader.days(everyDays)}` : null,
    share ? `meals of ${reader.percent(share, 1)} of its weight` : null,
    species ? { rat: 'rats', mouse: 'mice' }[species] : null,
    planId ? 'a feeding plan of its own' : null,
    stayUntilG ? `stays in its tub up to ${reader.mass(stayUntilG)}` : null,
  ].filter((part) => part !== null);
  return parts.length > 0 ? parts.join(', ') : 'as the rules say';
}

/** A record's body in one line. Identifications are written as they stand; who made one is added by whoever shows it. */
export function recordWords(
  { kind, body }: RecordFact | Pick<NewRecord, 'kind' | 'body'>,
  reader: Reader,
): string {
  const phrase = RECORDS[kind] as (body: RecordBodies[RecordKind], reader: Reader) => string;
  return phrase(body, reader);
}

const RECORDS: { [K in RecordKind]: (body: RecordBodies[K], reader: Reader) => string } = {
  weight: ({ massG }, reader) => reader.mass(massG),
  feeding: ({ species, size, state, taken }) =>
    `${species} ${size}, ${STATE_WORDS[state]}: ${taken ? 'taken' : 'refused'}`,
  shed: ({ stage, complete, eyeCaps }) =>
    stage === 'shed'
      ? `${SHED_STAGE_WORDS.shed}, ${complete === false ? 'in pieces' : 'whole'}${eyeCaps === false ? ', eye caps retained' : ''}`
      : SHED_STAGE_WORDS[stage],
  sex: ({ sex, method, sure, by }) => `${sex}, ${SEXING_WORDS[method]}, ${sure}, by ${by}`,
  identification: ({ genes, sure, by }) => `${genes}, ${sure}, by ${by}`,
  move: ({ reason, substrate }) => `${reason}${substrate ? `, on ${substrate.toLowerCase()}` : ''}`,
  plan: ({ protocol, firstMealOn }, reader) =>
    `${PLAN_WORDS[protocol]}, first meal ${reader.day(firstMealOn)}`,
  care: ({ act }) => CARE_WORDS[act],
  'own-way': ownRulesWords,
  ...HEALTH_RECORDS,
  ...ORIGIN_RECORDS,
  note: ({ text }) => text,
};

const HANDLING_FLAGS: Phrases<HandlingFlags> = {
  ...HEALTH_FLAGS,
  'on-loan': onLoanWords,
  gravid: () => 'gravid',
  digesting: ({ daysSinceMeal }) => `ate ${daysSinceMeal === 0 ? 'today' : 'yesterday'}: no handling`,
  settling: ({ days }, reader) => (days === 0 ? 'moved today' : `moved ${reader.days(days)} ago`),
  'below-own-best': (facts, reader) => CONCERNS['below-own-best'](facts, reader).text,
  'below-growth': (facts, reader) => CONCERNS['below-growth'](facts, reader).text,
  'meals-refused': (facts, reader) => CONCERNS['meals-refused'](facts, reader).text,
  'regurgitated-again': (facts, reader) => CONCERNS['regurgitated-again'](facts, reader).text,
};
export const handlingFlagWords = (flag: HandlingFlag, reader: Reader): string =>
  say(HANDLING_FLAGS, flag, reader);

type Facts<Union, Code> = Extract<Union, { code: Code }> extends { facts: infer F } ? F : never;

/** What of an identification its recorded pair cannot give. */
export const impossibleWords = ({
  locus,
  seen,
  possible,
}: Facts<RecordWarning, 'pair-cannot-give'>): string =>
  `${seen ?? `No ${locus.toLowerCase()}`}: as recorded, this pair can only give ${possible.join(' or ')} at this locus`;

export function sexDoubtWords(
  { label, sex, p, pOther }: Facts<RecordWarning, 'sex-does-not-fit'>,
  reader: Reader,
): string {
  const other = sex === 'female' ? 'males' : 'females';
  const share = (value: number): string => reader.percent(value, value < 0.1 ? 1 : 0);
  const what = p === 0 ? 'The' : 'A crossover, or the';
  return `${capital(label)} in a ${sex}: ${share(p)} of this pair’s ${sex}s and ${share(pOther)} of its ${other} show it. ${what} sex or the identification is wrong: check both`;
}

export const warningWords = (warning: RecordWarning, reader: Reader): string =>
  warning.code === 'pair-cannot-give' ? impossibleWords(warning.facts) : sexDoubtWords(warning.facts, reader);

/** What a number of the pattern season, clutch, hatchling says; null for another. */
export function numberWords(number: string): string | null {
  const parts = parseSeasonNumber(number);
  return parts && `Season ${parts.season}, clutch ${parts.clutch}, hatchling ${parts.hatchling}`;
}

/** "Rack A 2-3", as labels and lists say it. */
export const placeWords = ({ rack, level, slot }: Pick<TubPlace, 'rack' | 'level' | 'slot'>): string =>
  `${rack} ${level}-${slot}`;

export const NUMBER_PATTERN_WORDS: Readonly<Record<NumberPattern, string>> = {
  'season-clutch-hatchling': 'Season, clutch, hatchling: 2604-02',
  running: 'One running number: 0143',
  free: 'Your own text: Juniper 3',
};

/** What a program may do with a token. */
export const TOKEN_SCOPE_WORDS: Readonly<Record<TokenScope, string>> = {
  view: 'look',
  record: 'look and record',
};

/** What somebody may do in a collection. */
export const ROLE_WORDS: Readonly<Record<Role, { readonly name: string; readonly may: string }>> = {
  owner: { name: 'Owner', may: 'everything, and alone deletes animals' },
  keeper: { name: 'Keeper', may: 'everything but people, rules and settings' },
  helper: { name: 'Helper', may: 'daily work: meals, weights, sheds, eggs, pictures and labels' },
  viewer: { name: 'Viewer', may: 'looks only' },
  custom: { name: 'Custom', may: 'what is chosen here' },
};

/** What can be granted. */
export const GRANT_WORDS: Readonly<Record<Grant, string>> = {
  view: 'look',
  record: 'record daily work',
  breed: 'breed and identify',
  house: 'move animals and edit racks',
  sell: 'publish and sell',
  manage: 'people and rules',
};

/** Several in a line: "look, record daily work". */
export const grantsWords = (grants: readonly Grant[]): string =>
  grants.map((grant) => GRANT_WORDS[grant]).join(', ');

/** Why a backup could not be made, and what helps. */
export const BACKUP_FAULT_WORDS: Readonly<Record<BackupFault, string>> = {
  'disk-full': 'the disk is full where backups are kept',
  'folder-not-writable': 'the server may not write to the folder of backups',
  'program-missing': "PostgreSQL's program pg_dump is not on the server",
  failed: "it failed; the server's log says more",
};
