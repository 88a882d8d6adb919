import { SOAK, type Concern, type Concerns, type HeatFault, type HeatFaults } from '@karyotome/core';
import { say, sentences, type Phrases, type Told } from './phrases.ts';
import type { Reader } from './reader.ts';

/** What to look at when something is out of the ordinary, and who decides. */
export const SEE_A_VET =
  'Look at the animal: breathing, mouth, eyes, mites, stool, heat. What lasts, or any doubt, is for a veterinarian.';

export const CONCERNS: Phrases<Concerns, Told> = {
  'below-own-best': ({ massG, bestG, bestOn, loss, limit }, reader) => ({
    text: `${reader.mass(Math.round(massG))}, ${reader.percent(loss)} below its best of ${reader.mass(Math.round(bestG))} on ${reader.day(bestOn)}`,
    why: `${reader.percent(limit)} below its best is the usual limit for a closer look.`,
  }),
  'below-growth': ({ massG, deviations }, reader) => ({
    text: `${reader.mass(Math.round(massG))} is far below what its growth lets expect`,
    why: `${reader.number(deviations, 1)} standard deviations below: fewer than one weight in a thousand.`,
  }),
  'meals-refused': ({ refused, days, chance }, reader) => ({
    text: `${reader.count(refused, 'meal', 'meals')} refused in a row, none taken for ${reader.days(days)}`,
    why: `By its own record and that of animals like it, ${rareWords(chance, reader)} would do so by chance.`,
  }),
  'regurgitated-again': ({ times, days }, reader) => ({
    text: `Regurgitated ${times} times in ${reader.days(days)}`,
    why: 'Once happens: a meal too large, too cold, or handling. A second time is for a veterinarian.',
  }),
};

/** "fewer than one in 2,000": rounded down to hundreds, and never more common than a thousandth. */
function rareWords(chance: number, reader: Reader): string {
  const oneIn = Math.floor(1 / chance / 100) * 100;
  return `fewer than one in ${reader.number(Number.isFinite(oneIn) ? Math.max(1000, oneIn) : 1_000_000)}`;
}

export const concernWords = (concern: Concern, reader: Reader): Told => say(CONCERNS, concern, reader);

const HEAT_FAULTS: Phrases<HeatFaults> = {
  'no-thermostat': () => 'no thermostat: a heat mat without one burns and kills',
  'probe-loose': () => 'the probe hung loose: the mat runs hot',
  'burning-surface': ({ celsius }, reader) => `${reader.temperature(celsius)} on the warm side burns`,
  'off-target': ({ side, celsius, targetC }, reader) =>
    `${reader.temperature(celsius)} on the ${side} side, not ${reader.temperature(targetC)}`,
};
export const heatFaultWords = (fault: HeatFault, reader: Reader): string => say(HEAT_FAULTS, fault, reader);

export const HOW_TO_CHECK_HEAT =
  'With an infrared thermometer at the surface, and the thermostat’s probe fixed down: one that hangs in the air lets the mat run hot.';

/** What remains of a bad shed. */
export const REMAINS_WORDS = {
  pieces: 'Shed in pieces',
  caps: 'Eye caps retained',
  both: 'Shed in pieces, eye caps retained',
} as const;

/** What to do after a bad shed, and when to ask somebody trained. */
export const soakAdvice = (reader: Reader): string =>
  sentences([
    `Soak ${SOAK.fromMinutes} to ${SOAK.toMinutes} minutes in water of ${reader.temperature(SOAK.fromC)} to ${reader.temperature(SOAK.toC)}`,
    'Let it crawl through the hands, never peel, repeat the next day',
    'Eye caps that stay go to a veterinarian',
  ]);
