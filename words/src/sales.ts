import type { AnimalStatus, Fact, RecordGaps, SaleLacks, StatusEventKind } from '@karyotome/core';
import { say, type Phrases } from './phrases.ts';
import type { Reader } from './reader.ts';

const LACKS: Phrases<SaleLacks> = {
  'too-few-meals': ({ inRow, needed }, reader) =>
    `${reader.number(inRow)} of ${reader.count(needed, 'meal', 'meals')} in a row without help`,
  'too-light': ({ massG, neededG }, reader) => `${reader.mass(massG)} of ${reader.mass(neededG)}`,
  'never-weighed': () => 'never weighed',
  'no-shed-recorded': () => 'no shed recorded',
  'shed-in-pieces': ({ on }, reader) => `shed in pieces on ${reader.day(on)}`,
};

/** What an animal lacks to be ready for sale. */
export const tellLack = (lack: Fact<keyof SaleLacks>, reader: Reader): string => say(LACKS, lack, reader);

const GAPS: Phrases<RecordGaps> = {
  'never-weighed': () => 'never weighed',
  'never-fed': () => 'no meal recorded',
  'no-picture': () => 'no picture',
  'not-sexed': () => 'not sexed',
  'sex-unsure': ({ sure }) => `sex ${sure}`,
  'identification-unsure': ({ sure }) => `identification ${sure}`,
};

/** What a record lacks that a buyer would ask for. */
export const tellGap = (gap: Fact<keyof RecordGaps>, reader: Reader): string => say(GAPS, gap, reader);

export const STATUS_WORDS: Readonly<Record<AnimalStatus, string>> = {
  undecided: 'undecided',
  'held-back': 'held back',
  'for-sale': 'for sale',
  reserved: 'reserved',
  sold: 'sold',
  breeder: 'breeder',
  died: 'died',
  mistaken: 'entered by mistake',
  outside: 'not in this collection',
};

/** What happened to an animal's status, as it is told afterwards. */
export const STATUS_EVENT_WORDS: Readonly<Record<StatusEventKind, string>> = {
  undecided: 'Undecided again',
  'held-back': 'Held back',
  offered: 'Offered for sale',
  reserved: 'Reserved',
  lapsed: 'The reservation ran out',
  sold: 'Sold',
  'gone-back': 'Came back',
  withdrawn: 'Taken off sale',
  breeder: 'Kept as a breeder',
  died: 'Died',
  mistaken: 'Entered by mistake',
  outside: 'Not in this collection',
};

export const HANDOVER_WORDS = {
  collected: 'collected here',
  shipped: 'shipped',
  delivered: 'delivered',
  'met-halfway': 'met halfway',
} as const;

/** What a buyer of any ball python should know; common practice, no source, but for the first (CITES, Appendix II). */
export const BUYER_CAUTIONS: readonly string[] = [
  'Ball pythons (Python regius) are in CITES Appendix II: crossing a border takes permits. Many places license keeping, breeding or selling: local rules decide.',
  'Reptiles can carry Salmonella: wash hands, keep thawing prey away from food, take care with small children and people at risk.',
  'Heat mats without a thermostat burn and kill. Fix the probe down and check the surface with a thermometer.',
  'Live rodents injure snakes. Never pull skin or eye caps off. Assist-feeding is taught hand to hand.',
  'Open-mouth breathing, mouth lesions, repeated regurgitation, mites that persist or lasting weight loss: see a veterinarian.',
];

/** After a move an animal settles first. */
export const SETTLING_ADVICE =
  'Let it settle for a week before the first meal, and do not handle it for 48 hours after a meal. Some refuse food for two or three weeks after a move.';

/** A person as they are named; one who was erased has no name. */
export const personWords = (name: string | null): string => name ?? 'somebody who was erased';
