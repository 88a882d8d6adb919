import type { MoveAdvice, MoveReason, MoveReasons } from '@karyotome/core';
import { say, sentences, type Phrases } from './phrases.ts';
import type { Reader } from './reader.ts';

/** What was found, and the rule that makes it count. */
export interface ReasonWords {
  readonly text: string;
  readonly rule: string;
}

export const MOVE_REASONS: Phrases<MoveReasons, ReasonWords> = {
  'pushes-at-tub': ({ seenOn }, reader) => ({
    text: `Pushes at its tub, seen on ${reader.day(seenOn)}`,
    rule: 'An animal that pushes at the front or the sides has outgrown its tub.',
  }),
  'gravid-takes-change': () => ({
    text: 'Gravid: she takes the change best now',
    rule: 'The last tub is entered when gravid: she takes the change best then, and eats well after laying.',
  }),
  gravid: () => ({
    text: 'Gravid',
    rule: 'A gravid female is left alone, except for the move into the last tub.',
  }),
  'moved-back-recently': ({ on, meals, gainedG, mealsInARow, retryMeals, retryG }, reader) => ({
    text: `Moved back on ${reader.day(on)}: ${reader.count(meals, 'meal', 'meals')} and ${reader.mass(Math.round(gainedG))} since, ${mealsInARow} in a row`,
    rule: `After moving back: ${reader.count(retryMeals, 'meal', 'meals')} or about ${reader.mass(retryG)}, then try again.`,
  }),
  'not-eating-since-move': ({ days, refused, losesMass, retryG }, reader) => ({
    text: `No meal in the ${reader.days(days)} since the move, ${refused} refused${losesMass ? ', and losing weight' : ''}`,
    rule: `Two to three weeks without interest in food after a move: back to the last tub, more meals and about ${reader.mass(retryG)}, then try again.`,
  }),
  'over-step-mass': ({ massG, step, maxG, nextStep, nextMinG }, reader) => ({
    text: `${reader.mass(Math.round(massG))}, ${overWords(massG / maxG - 1, reader)} over the ${reader.mass(maxG)} of the ${step}`,
    rule: `${step}: up to ${reader.mass(maxG)}; ${nextStep}: from ${reader.mass(nextMinG)}.`,
  }),
  'bold-feeder': ({ massG, maxG, mealsInARow, neededMeals, fromShare }, reader) => ({
    text: `${reader.mass(Math.round(massG))} and a bold feeder, ${reader.count(mealsInARow, 'meal', 'meals')} in a row`,
    rule: `A bold feeder moves up early: from ${reader.percent(fromShare)} of the step’s ${reader.mass(maxG)} with ${reader.count(neededMeals, 'meal', 'meals')} in a row.`,
  }),
  'eats-well': ({ mealsInARow, neededMeals }, reader) => ({
    text: `Eats well: ${reader.count(mealsInARow, 'meal', 'meals')} in a row`,
    rule: `A run of ${reader.count(neededMeals, 'meal', 'meals')} or more before a move.`,
  }),
  'in-shed': ({ stage, day }) => ({
    text: `In shed: ${stage}, day ${day}`,
    rule: 'No handling and no move while it sheds.',
  }),
  digesting: ({ daysSinceMeal, restDays }, reader) => ({
    text: daysSinceMeal === 0 ? 'Fed today' : `Fed ${reader.days(daysSinceMeal)} ago`,
    rule: `No handling for ${restDays * 24} hours after a meal.`,
  }),
  'refuses-meals': ({ refusedInARow }, reader) => ({
    text: `Not eating: ${reader.count(refusedInARow, 'meal', 'meals')} refused in a row`,
    rule: 'An animal that refuses stays where it is: a tub that is too big stops a young one from eating.',
  }),
  'shy-feeder': ({ mealsInARow, takenEver, offeredEver, leeway }, reader) => ({
    text: `A shy feeder on a good run: ${mealsInARow} in a row, ${takenEver} of ${offeredEver} ever`,
    rule: `A shy feeder on a good run stays where it is, up to ${reader.percent(leeway)} over the weight.`,
  }),
  'too-few-meals': ({ mealsInARow, neededMeals, nextStep }, reader) => ({
    text: `${mealsInARow} of the ${reader.count(neededMeals, 'meal', 'meals')} in a row that the ${nextStep} asks for`,
    rule: `${nextStep}: after ${reader.count(neededMeals, 'meal', 'meals')} in a row.`,
  }),
  settling: ({ days, settlingDays }, reader) => ({
    text: days === 0 ? 'Moved today' : `Moved ${reader.days(days)} ago`,
    rule: `Up to ${reader.days(settlingDays)} to settle after a move.`,
  }),
  'stale-mass': ({ days, staleDays }, reader) => ({
    text: `Last weighed ${reader.days(days)} ago: weigh it first`,
    rule: `A weight before a move, not older than ${reader.days(staleDays)}.`,
  }),
};

const overWords = (share: number, reader: Reader): string => (share < 0.005 ? 'just' : reader.percent(share));

export const moveReasonWords = (reason: MoveReason, reader: Reader): ReasonWords =>
  say(MOVE_REASONS, reason, reader);

/** The reasons of advice in one line, such as is written beside a move. */
export const reasonsLine = (reasons: MoveAdvice['reasons'], reader: Reader): string =>
  sentences(reasons.map((reason) => moveReasonWords(reason, reader).text));
