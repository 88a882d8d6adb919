import type { RoundAnimal } from '@karyotome/contract';
import { weightDoubt } from '@karyotome/core';
import { capital, weightDoubtWords } from '@karyotome/words';
import { countWords } from '../../format/format.ts';
import { reader } from '../../format/reader.ts';
import { noted, ROUND_ACTS, weighed, type Entry, type RoundAct } from '../rounds/round-acts.ts';
import { stopPlace } from '../rounds/useRoundPlace.ts';
import type { Target } from './candidates.ts';
import { findIn } from './find.ts';
import { readActs, type TypedAct } from './read-act.ts';

/** An act that was typed, on the animals that it is entered of. */
export interface OfferedAct {
  readonly key: string;
  readonly title: string;
  readonly about: string;
  /** What is still missing is typed after this; null where it can be entered. */
  readonly fill: string | null;
  readonly entries: readonly { readonly animal: RoundAnimal; readonly entry: Entry }[];
}

const MOST_OFFERED = 5;

function onOne(target: Target, entry: Entry, more = ''): OfferedAct {
  return {
    key: `${target.animal.id} ${entry.text}`,
    title: `${target.animal.number}: ${entry.text}`,
    about: [placeOf(target), more].filter(Boolean).join(' · '),
    fill: null,
    entries: [{ animal: target.animal, entry }],
  };
}
const unfinished = (target: Target, title: string, fill: string): OfferedAct => ({
  key: `${target.animal.id} unfinished`,
  title,
  about: placeOf(target),
  fill,
  entries: [],
});
const placeOf = (target: Target): string => `${stopPlace(target)}, ${target.animal.label}`;

/** The meal of all that are due in a rack whose name was typed, or the cleaning of all its tubs. */
function ofRack(act: RoundAct, targets: readonly Target[], words: string): OfferedAct | null {
  if (act.group === 'shed') return null;
  const inside = targets.filter(({ rack: { name } }) => name?.toLowerCase() === words.toLowerCase());
  const entries = inside.flatMap((target) => {
    const isMeant = act.group !== 'meal' || target.animal.meal?.verdict === 'due';
    const entry = isMeant ? act.enter(target.animal) : null;
    return entry ? [{ animal: target.animal, entry }] : [];
  });
  if (entries.length < 2) return null;
  const who = `${act.group === 'meal' ? 'all that are due' : 'all'} in ${inside[0]!.rack.name}`;
  return {
    key: `${act.key} ${who}`,
    title: `${capital(who)}: ${act.title.toLowerCase()}`,
    about: countWords(entries.length, 'animal', 'animals'),
    fill: null,
    entries,
  };
}

/** Whose number or place was typed whole; where there is none, who is found by the words. */
function meant(targets: readonly Target[], words: string): Target[] {
  const typed = words.toLowerCase().split(/\s+/);
  const exact = targets.filter(({ animal, rack, place }) => {
    const own = new Set(`${animal.number} ${rack.name ?? ''} ${place}`.toLowerCase().split(' '));
    return typed.every((word) => own.has(word));
  });
  return (exact.length > 0 ? exact : findIn(targets, words)).slice(0, MOST_OFFERED);
}

function ofAct({ verb, target: words, massG, note }: TypedAct, targets: readonly Target[]): OfferedAct[] {
  const found = meant(targets, words);
  if (verb === 'weigh')
    return found.map((target) => {
      const { number, expected } = target.animal;
      if (massG == null) return unfinished(target, `Weigh ${number}: type its weight`, `weigh ${number} `);
      const doubt = weightDoubt(massG, expected);
      return onOne(target, weighed(massG), doubt ? weightDoubtWords(doubt, reader()) : '');
    });
  if (verb === 'note')
    return found.map((target) => {
      const { number } = target.animal;
      return note
        ? onOne(target, noted(note))
        : unfinished(target, `Note of ${number}: type it`, `note ${number}: `);
    });
  const act = ROUND_ACTS.find(({ key }) => key === verb)!;
  const whole = ofRack(act, targets, words);
  if (whole) return [whole];
  return found.flatMap((target) => {
    const entry = act.enter(target.animal);
    return entry ? [onOne(target, entry)] : [];
  });
}

/** What was typed, as acts on each animal that may be meant; of a whole rack where its name alone was typed. */
export function offeredActs(typed: string, targets: readonly Target[]): OfferedAct[] {
  const offered = readActs(typed, reader().massUnit).flatMap((act) => ofAct(act, targets));
  // The weight may be either of two numbers: the same is not offered twice, nor asked for where one was read.
  const isRead = offered.some(({ fill }) => fill === null);
  const once = new Map(offered.filter(({ fill }) => !isRead || fill === null).map((act) => [act.key, act]));
  return [...once.values()].slice(0, MOST_OFFERED);
}
