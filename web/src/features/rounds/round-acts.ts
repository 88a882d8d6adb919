import type { MealPreset, NewRecord, RoundAnimal } from '@karyotome/contract';
import { offeredStep, type CareAct, type ShedStage } from '@karyotome/core';
import { farmToday, massWords } from '../../format/format.ts';

/** What is entered, and in which words. */
export interface Entry {
  readonly record: NewRecord;
  readonly text: string;
}

/** One thing that is logged at a tub, by one key or one touch. */
export interface RoundAct {
  /** The key that does it. */
  readonly key: string;
  readonly title: string;
  readonly group: 'meal' | 'shed' | 'care';
  /** After it the round goes on to the next tub, where the keeper wants so. */
  readonly goesOn?: true;
  /** Null where it makes no sense for this animal. */
  readonly enter: (animal: RoundAnimal) => Entry | null;
}

/** A meal as it was offered, and whether it was taken. */
export function mealEntry({ species, size, state, step }: Omit<MealPreset, 'preyG'>, taken: boolean): Entry {
  const body = { species, size, state, taken, ...(step === null ? {} : { step }) };
  return {
    record: { kind: 'feeding', on: farmToday(), body },
    text: `${species} ${size} ${taken ? 'taken' : 'refused'}`,
  };
}
const meal =
  (taken: boolean) =>
  ({ meal: planned }: RoundAnimal) =>
    planned ? mealEntry({ ...planned, step: offeredStep(planned.plan) }, taken) : null;
const care = (act: CareAct, text: string) => () => ({
  record: { kind: 'care', on: farmToday(), body: { act } } as NewRecord,
  text,
});
const sign =
  (stage: ShedStage, text: string, more: { complete?: boolean; eyeCaps?: boolean } = {}) =>
  () => ({
    record: { kind: 'shed', on: farmToday(), body: { stage, ...more } } as NewRecord,
    text,
  });

/** In the order in which a hand would look: the meal, the skin, the tub. */
export const ROUND_ACTS: readonly RoundAct[] = [
  { key: 't', title: 'Took it', group: 'meal', goesOn: true, enter: meal(true) },
  { key: 'r', title: 'Refused', group: 'meal', goesOn: true, enter: meal(false) },
  { key: 'n', title: 'Not offered', group: 'meal', goesOn: true, enter: care('not-offered', 'not offered') },
  { key: 'd', title: 'Dull', group: 'shed', enter: sign('dull', 'dull') },
  { key: 'b', title: 'Blue', group: 'shed', enter: sign('blue', 'blue eyes') },
  { key: 'c', title: 'Clear', group: 'shed', enter: sign('clear', 'clear again') },
  { key: 's', title: 'Shed whole', group: 'shed', enter: sign('shed', 'shed whole', { complete: true }) },
  {
    key: 'p',
    title: 'Shed in pieces',
    group: 'shed',
    enter: sign('shed', 'shed in pieces', { complete: false }),
  },
  {
    key: 'e',
    title: 'Eye caps off',
    group: 'shed',
    enter: care('caps-checked', 'eye caps checked: both off'),
  },
  {
    key: 'q',
    title: 'Eye caps stay',
    group: 'shed',
    enter: sign('shed', 'shed, eye caps retained', { eyeCaps: false }),
  },
  { key: 'k', title: 'Soaked', group: 'shed', enter: care('soaked', 'soaked') },
  { key: 'l', title: 'Cleaned', group: 'care', enter: care('cleaned', 'tub cleaned') },
  { key: 'g', title: 'Pushes', group: 'care', enter: care('pushing', 'pushes at its tub') },
  { key: 'v', title: 'Regurgitated', group: 'care', enter: care('regurgitated', 'regurgitated') },
];

/** What is entered as a weight. */
export const weighed = (massG: number): Entry => ({
  record: { kind: 'weight', on: farmToday(), body: { massG } },
  text: massWords(massG),
});
export const noted = (text: string): Entry => ({
  record: { kind: 'note', on: farmToday(), body: { text } },
  text: `note: ${text}`,
});
