import type {
  HealthFlags,
  HealthSign,
  HealthTasks,
  OpenSigns,
  QuarantineReason,
  TreatmentCourse,
} from '@karyotome/core';
import type { HealthBodies } from '@karyotome/contract';
import { capital, sentences, type Phrases, type Told } from './phrases.ts';
import type { Reader } from './reader.ts';

/** Nothing here says what an animal has, or what it is given: that is the veterinarian's. */
export const SIGNS_FOR_VET =
  'Signs are written down as they are seen. What they mean, and what is given, is for a veterinarian.';
export const NEVER_DOUBLE =
  'A dose that was missed is never made up by two at once: ask the veterinarian who ordered it.';
export const QUARANTINE_PRACTICE =
  'Last on the round, with tools of its own; hands and arms washed before and after. When it may end is decided with a veterinarian, who may want a sample of stool first.';

export const SIGN_WORDS: Readonly<Record<HealthSign, string>> = {
  mites: 'mites',
  'open-mouth-breathing': 'breathes with its mouth open',
  wheezing: 'wheezes or clicks as it breathes',
  'nasal-discharge': 'discharge from the nostrils',
  'mouth-lesion': 'reddening or sores in the mouth',
  'excess-saliva': 'much saliva',
  swelling: 'swelling',
  wound: 'wound',
  burn: 'burn',
  blisters: 'blisters',
  'discoloured-scales': 'discoloured or damaged scales',
  'cloudy-eye': 'cloudy eye outside a shed',
  thin: 'thin, spine stands out',
  weak: 'weak or limp',
  tremor: 'trembles',
  'cannot-right-itself': 'does not turn over from its back',
  'loose-stool': 'loose stool',
  'blood-in-stool': 'blood in the stool',
  straining: 'strains',
  prolapse: 'tissue out of the vent',
};

export const QUARANTINE_REASON_WORDS: Readonly<Record<QuarantineReason, string>> = {
  new: 'newly arrived',
  signs: 'shows signs',
  contact: 'was near one that shows signs',
};

/** "mites, much saliva; rubs its nose". */
export function signsWords({
  signs,
  words,
}: {
  signs: readonly HealthSign[];
  words?: string | null;
}): string {
  const named = signs.map((sign) => SIGN_WORDS[sign]).join(', ');
  return [named, words ?? ''].filter((part) => part !== '').join('; ');
}

const timesWords = (timesADay: number, everyDays: number, reader: Reader): string =>
  timesADay === 1
    ? everyDays === 1
      ? 'once a day'
      : `every ${reader.days(everyDays)}`
    : `${timesADay} times a day${everyDays === 1 ? '' : `, every ${reader.days(everyDays)}`}`;

/** How a course was ordered: "0.1 ml every 3 days, 5 doses, ordered by Dr. Lund". */
export const courseWords = (
  {
    dose,
    everyDays,
    timesADay,
    doses,
    orderedBy,
  }: Omit<HealthBodies['treatment'], 'what' | 'from' | 'weighEveryDays'>,
  reader: Reader,
): string =>
  `${dose} ${timesWords(timesADay, everyDays, reader)}, ${
    doses == null ? 'until it is ended' : reader.count(doses, 'dose', 'doses')
  }, ordered by ${orderedBy}`;

/** How far a course has come. */
export const courseProgressWords = (
  { given, leftOut, doses }: Pick<TreatmentCourse, 'given' | 'leftOut' | 'doses'>,
  reader: Reader,
): string =>
  `${doses === null ? reader.count(given, 'dose', 'doses') : `${given} of ${reader.count(doses, 'dose', 'doses')}`} given${
    leftOut > 0 ? `, ${leftOut} left out` : ''
  }`;

/* The history keeps no null: what is absent there was null. */
export const HEALTH_RECORDS: {
  [K in keyof HealthBodies]: (body: HealthBodies[K], reader: Reader) => string;
} = {
  'health-check': (body) => (signsWords(body) === '' ? 'nothing found' : signsWords(body)),
  'vet-visit': ({ veterinarian, words, nextOn }, reader) =>
    `${veterinarian}: ${words}${nextOn ? ` Next visit ${reader.day(nextOn)}.` : ''}`,
  treatment: ({ what, ...ordered }, reader) =>
    `${what}, ${courseWords(ordered, reader)}, from ${reader.day(ordered.from)}`,
  dose: ({ ordinal, isGiven }) => `dose ${ordinal} ${isGiven ? 'given' : 'left out'}`,
  'treatment-end': ({ reason }) => `ended: ${reason}`,
  quarantine: ({ until, reason }, reader) =>
    until == null ? 'ended' : `until ${reader.day(until)}, ${QUARANTINE_REASON_WORDS[reason]}`,
  'post-mortem': ({ by, words }) => `${by}: ${words}`,
};

const openSignsWords = (open: OpenSigns, reader: Reader): string =>
  `${capital(signsWords(open))}, since ${reader.day(open.since)}`;

export const HEALTH_TASKS: Phrases<HealthTasks, Told> = {
  'dose-due': ({ what, dose, orderedBy, ordinal, of, timeOfDay, timesADay, isLate }, reader) => ({
    text: `${what}, ${dose}: dose ${ordinal}${of === null ? '' : ` of ${of}`}${
      timesADay > 1 ? `, ${timeOfDay} of ${timesADay} today` : ''
    }${isLate ? ', late' : ''}`,
    why: sentences([
      `As ordered by ${orderedBy}`,
      ...(of === null ? [] : [`${reader.count(of - ordinal, 'dose', 'doses')} after this one`]),
      NEVER_DOUBLE,
    ]),
  }),
  'signs-recheck-due': ({ everyDays, ...open }, reader) => ({
    text: `${openSignsWords(open, reader)}: look again`,
    why: sentences([
      `Looked at on ${reader.day(open.lastOn)}, again every ${reader.days(everyDays)} while it lasts`,
      SIGNS_FOR_VET,
    ]),
  }),
  'visit-due': ({ veterinarian, on }, reader) => ({
    text: `Visit to ${veterinarian}`,
    why: `Arranged for ${reader.day(on)}.`,
  }),
  'quarantine-check-due': ({ until, everyDays }, reader) => ({
    text: 'In quarantine: look it through',
    why: sentences([
      `Kept apart until ${reader.day(until)}; looked through for mites and other signs every ${reader.days(everyDays)}`,
      QUARANTINE_PRACTICE,
    ]),
  }),
  'quarantine-over': ({ since, until, reason }, reader) => ({
    text: 'Quarantine: end it, or go on',
    why: sentences([
      `Kept apart since ${reader.day(since)} (${QUARANTINE_REASON_WORDS[reason]}), until ${reader.day(until)}`,
      QUARANTINE_PRACTICE,
    ]),
  }),
  'mite-check-due': ({ toCheck, of, lastSeenOn, until, everyDays }, reader) => ({
    text: `Mites seen: look through ${toCheck} of ${of}`,
    why: sentences([
      `Mites were last seen here on ${reader.day(lastSeenOn)}: all who live here are looked through every ${reader.days(everyDays)} until ${reader.day(until)}, if none are seen again`,
      SIGNS_FOR_VET,
    ]),
  }),
};

export const HEALTH_FLAGS: Phrases<HealthFlags> = {
  'in-quarantine': ({ until }, reader) => `in quarantine until ${reader.day(until)}: last on the round`,
  'under-treatment': ({ what }) => `under treatment: ${what}`,
  'signs-seen': (open, reader) => openSignsWords(open, reader),
};
