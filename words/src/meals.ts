import type { MealFacts, MealNotes } from '@karyotome/core';
import { capital, say, sentences, type Phrases, type Told } from './phrases.ts';
import type { Reader } from './reader.ts';

const MEAL_NOTES: Phrases<MealNotes> = {
  'fasting-season': ({ sex, refusedInARow, everyDays }, reader) =>
    `${sex === 'male' ? 'A male' : 'An adult'} that fasts in the season, ${reader.count(refusedInARow, 'refusal', 'refusals')} in a row: offered every ${reader.days(everyDays)}`,
  'smaller-after-regurgitation': ({ share }, reader) =>
    `A smaller meal after a regurgitation: ${reader.percent(share)} of the usual`,
  'resting-after-regurgitation': ({ on, restDays }, reader) =>
    `Regurgitated on ${reader.day(on)}: ${reader.days(restDays)} of rest. A second time is for a veterinarian`,
  'in-shed': ({ stage, day }) => `In shed (${stage}), day ${day}: passed over`,
  gravid: () => 'Gravid: passed over',
  'before-first-shed': () => 'No meal before the first shed: it lives on its yolk',
};

/** Why a meal is as large as it is, how often it is offered, and why it is passed over. */
export function mealWhy(
  meal: Pick<MealFacts, 'massG' | 'everyDays' | 'basis' | 'notes'>,
  reader: Reader,
): string {
  const { massG, weighedOn, share } = meal.basis;
  return sentences([
    `${reader.mass(Math.round(massG))} on ${reader.day(weighedOn)}: ${reader.percent(share, 1)} is about ${reader.mass(meal.massG)}, every ${reader.days(meal.everyDays)}`,
    ...meal.notes.map((note) => say(MEAL_NOTES, note, reader)),
  ]);
}

/** "rat pup, 26 g", "live rat pup, 26 g" */
export function preyWords(
  { species, size, state, massG }: Pick<MealFacts, 'species' | 'size' | 'state' | 'massG'>,
  reader: Reader,
): string {
  const how = state === 'frozen-thawed' ? '' : `${state} `;
  return `${how}${species} ${size}, ${reader.mass(massG)}`;
}

export function mealTaskWords(meal: MealFacts, reader: Reader): Told {
  const { trying } = meal;
  const how = trying && !trying.isPlanned ? `, ${trying.name.toLowerCase()}` : '';
  return {
    text: `Offer ${preyWords(meal, reader)}${how}`,
    why: sentences([
      mealWhy(meal, reader),
      trying && `${capital(trying.name)}: attempt ${trying.attempt} of ${trying.tries}`,
      trying?.next != null && `Then: ${trying.next}`,
      trying?.caution,
    ]),
  };
}
