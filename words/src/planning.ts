import type {
  AgainstPair,
  NotReady,
  RoomChange,
  RoomChanges,
  WeightDoubt,
  WeightDoubts,
} from '@karyotome/core';
import type { Milestone, Milestones } from '@karyotome/contract';
import { say, sentences, type Phrases } from './phrases.ts';
import type { Reader } from './reader.ts';
import { readinessWords } from './season.ts';

export function notReadyWords(reason: NotReady, reader: Reader): string {
  switch (reason.code) {
    case 'not-grown':
      return 'not grown yet';
    case 'near-laying':
      return 'about to lay';
    case 'laid-this-season':
      return 'has laid this season';
    default:
      return readinessWords(reason, reader).text;
  }
}

export function againstPairWords(against: AgainstPair, reader: Reader): string {
  switch (against.code) {
    case 'dam-not-ready':
      return `Female: ${notReadyWords(against.facts.reason, reader)}`;
    case 'sire-not-ready':
      return `Male: ${notReadyWords(against.facts.reason, reader)}`;
    case 'sire-load-used-up':
      return 'Male: no more females this season';
    case 'too-closely-related':
      return `Too closely related: inbreeding ${reader.percent(against.facts.inbreeding, 1)}`;
  }
}

const ROOM_CHANGES: Phrases<RoomChanges> = {
  'buy-places': ({ places }, reader) =>
    `Buy ${reader.list(places.map(({ kind, count }) => `${reader.count(count, 'place', 'places')} of ${kind}`))}`,
  'sell-faster': ({ perWeek }, reader) => `Sell ${reader.percent(perWeek)} of those for sale in a week`,
  'hold-back-fewer': ({ share, before }, reader) =>
    `Hold back ${reader.percent(share)} instead of ${reader.percent(before)}`,
  'move-up-earlier': ({ share }, reader) => `Move up ${reader.percent(share)} earlier by weight`,
};
export const roomChangeWords = (change: RoomChange, reader: Reader): string =>
  say(ROOM_CHANGES, change, reader);

const spanWords = ({ lowG, highG }: WeightDoubts['far-from-expected'], reader: Reader): string =>
  `Expected ${reader.massSpan(Math.round(lowG), Math.round(highG))}`;

const WEIGHT_DOUBTS: Phrases<WeightDoubts> = {
  'lighter-than-expected': (facts, reader) =>
    sentences([`${reader.mass(facts.massG)} is lighter than expected`, spanWords(facts, reader)]),
  'heavier-than-expected': (facts, reader) =>
    sentences([`${reader.mass(facts.massG)} is heavier than expected`, spanWords(facts, reader)]),
  'far-from-expected': (facts, reader) => {
    const times = facts.ratio < 1 ? reader.percent(facts.ratio) : `${reader.number(facts.ratio, 1)} times`;
    return sentences([
      `${reader.mass(facts.massG)} is ${times} of what was expected: right animal?`,
      spanWords(facts, reader),
    ]);
  },
};
export const weightDoubtWords = (doubt: WeightDoubt, reader: Reader): string =>
  say(WEIGHT_DOUBTS, doubt, reader);

const MILESTONES: Phrases<Milestones> = {
  'outgrows-step': ({ step }) => `outgrows its ${step}`,
  'sale-mass': () => 'a weight to sell at',
  'breeding-mass': () => 'a weight to breed at',
};
export const milestoneWords = (milestone: Milestone, reader: Reader): string =>
  say(MILESTONES, milestone, reader);
