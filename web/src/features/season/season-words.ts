import type { BoardFemale, BoardMale, FemaleGroup, RelatedMate, SeasonEventView } from '@karyotome/contract';
import {
  daysBetween,
  EVENTS_WITH_MALE,
  pairingCautions,
  parseParent,
  type Catalogue,
  type Expected,
  type SeasonEventKind,
} from '@karyotome/core';
import { EXPECTED_WORDS, readinessWords } from '@karyotome/words';
import { agoWords, oddsWords, shortDay, sinceWords, spanOfDays } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';

/* What the season board says, in words. */

export const EVENT_WORDS: Readonly<Record<SeasonEventKind, string>> = {
  introduction: 'Introduced',
  lock: 'Lock',
  separation: 'Separated',
  ovulation: 'Ovulated',
  'pre-lay-shed': 'Pre-lay shed',
};
export const needsMale = (kind: SeasonEventKind): boolean => EVENTS_WITH_MALE.some((one) => one === kind);

/** Headings of the females by what can be done with them. */
export const GROUP_WORDS: Readonly<Record<FemaleGroup, string>> = {
  together: 'With a male',
  gravid: 'Gravid',
  laid: 'Eggs laid',
  apart: 'Separated',
  ready: 'Ready',
  'not-yet': 'Not yet',
};

const numberOf = (female: BoardFemale, id: string): string =>
  female.pairing?.sires.find((sire) => sire.id === id)?.number ?? '';
const locksWords = (locks: number): string =>
  locks === 0 ? 'no lock seen' : locks === 1 ? '1 lock' : `${locks} locks`;

/** Where a female stands: "With M-02 since yesterday, 1 lock". */
export function stageWords(female: BoardFemale): string {
  const { pairing, readiness } = female;
  if (!pairing)
    return readiness.ready
      ? 'Ready'
      : readiness.reasons[0]
        ? readinessWords(readiness.reasons[0], reader()).text
        : 'Not ready';
  const { forecast, clutch } = pairing;
  const since = forecast.since ? sinceWords(forecast.since) : '';
  const ago = forecast.since ? agoWords(forecast.since) : '';
  switch (forecast.stage) {
    case 'together':
      return `With ${forecast.with.map((id) => numberOf(female, id)).join(' and ')} ${since}, ${locksWords(forecast.locks)}`;
    case 'apart':
      return `Alone ${since}, ${locksWords(forecast.locks)}`;
    case 'ovulated':
      return `Ovulated ${ago}`;
    case 'pre-lay':
      return `Pre-lay shed ${ago}`;
    case 'laid':
      return clutch?.hatchedOn
        ? `Clutch ${clutch.name} hatched ${agoWords(clutch.hatchedOn)}`
        : `Clutch ${clutch?.name ?? ''}, ${clutch?.eggs ?? 0} eggs, day ${clutch?.day ?? 0}`;
    case 'open':
      return 'No male yet';
  }
}

/** "eggs 20 Nov to 3 Dec" */
export const spanWords = ({ what, from, to }: Expected): string =>
  `${EXPECTED_WORDS[what]} ${spanOfDays(from, to)}`;

/** What an expected day rests on. */
export const basisWords = ({ clutches }: Pick<Expected, 'clutches'>): string =>
  clutches === 0
    ? 'Rests on common practice: none of your own clutches has told yet.'
    : `Rests on ${clutches} of your own clutches, beside common practice that counts as 6.`;

/** The candidate fathers: "M-03 or M-04", those from stored sperm apart. */
export function siresWords(female: BoardFemale): string {
  const sires = female.pairing?.sires ?? [];
  const here = sires.filter(({ stored }) => !stored).map(({ number }) => number);
  const stored = sires.filter((sire) => sire.stored).map(({ number }) => number);
  return [here.join(' or '), ...(stored.length > 0 ? [`stored: ${stored.join(', ')}`] : [])]
    .filter(Boolean)
    .join('; ');
}

/** A male's season: "2 of 5 females, locked 3 days ago". */
export function maleUseWords(male: BoardMale, load: number): string {
  const last = male.lastLockOn ? `, locked ${agoWords(male.lastLockOn)}` : '';
  return `${male.females} of ${load} females${last}`;
}

/** How his weight moved over the last months: "4% down since 3 Sep". */
export function trendWords(weights: BoardMale['weights'], today: string): string {
  const now = weights.at(-1);
  const then = weights.find(({ on }) => daysBetween(on, today) <= 120);
  if (!now || !then || then === now) return '';
  const change = Math.round((now.massG / then.massG - 1) * 100);
  if (change === 0) return 'weight steady';
  return `${Math.abs(change)}% ${change < 0 ? 'down' : 'up'} since ${shortDay(then.on)}`;
}

/** What to know before the two are introduced; the welfare of the young first. */
export function introductionCautions(
  female: BoardFemale,
  male: BoardMale,
  /** Mates that are too closely related to one of the two. */
  related: readonly RelatedMate[],
  catalogue: Catalogue,
): string[] {
  const sire = parseParent(male.label, 'male', catalogue).parent;
  const dam = parseParent(female.label, 'female', catalogue).parent;
  const against = (who: string, { readiness }: Pick<BoardFemale, 'readiness'>): string[] =>
    readiness.reasons
      .filter(({ side }) => side === 'against')
      .map((reason) => `${who}: ${readinessWords(reason, reader()).text}`);
  const kin = related.find(({ id }) => id === female.id || id === male.id);
  const stage = female.pairing?.forecast.stage;
  return [
    ...new Set(pairingCautions(sire, dam, catalogue)),
    ...(kin
      ? [`They are related: their young would be inbred by ${oddsWords(kin.inbreeding)}, over your bound`]
      : []),
    ...(stage === 'ovulated' || stage === 'pre-lay'
      ? [`${female.number}: on her way to eggs, and usually left alone from now on`]
      : []),
    ...against(female.number, female),
    ...against(male.number, male),
  ];
}

/** Events in the order of the season, the latest first. */
export const latestFirst = (events: readonly SeasonEventView[]): SeasonEventView[] => events.toReversed();
