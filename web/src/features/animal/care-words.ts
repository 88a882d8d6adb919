import { REFUSAL_STEPS, type FeedingPlan, type MealVerdict, type Reach, type Worked } from '@karyotome/core';
import { dayWords } from '../../format/format.ts';

export const VERDICT_WORDS: Readonly<Record<MealVerdict, string>> = {
  due: 'Due',
  later: 'Next meal',
  'in-shed': 'Passed over, in shed',
  gravid: 'Passed over, gravid',
  resting: 'Resting after a regurgitation',
  fasting: 'Fasting in its season, next offer',
  'first-shed': 'Waits for its first shed',
};

/** "about 4 May 2027, between 2 Apr 2027 and 9 Jul 2027" */
export function reachWords({ early, median, late }: Reach): string {
  if (median === null) return early ? `not before ${dayWords(early)}` : 'not within three years';
  const from = early ? dayWords(early) : 'now';
  return `about ${dayWords(median)}, ${late ? `between ${from} and ${dayWords(late)}` : `not before ${from}`}`;
}

const STATE_WORDS: Readonly<Record<string, string>> = {
  'frozen-thawed': 'frozen-thawed',
  'fresh-killed': 'freshly killed',
  live: 'live',
};
const LIGHT_WORDS: Readonly<Record<string, string>> = {
  light: 'lights on',
  dim: 'dim light',
  dark: 'in the dark',
};

/** What was done, in words: a step by its name, as the plan has it now or had it built in. */
export function workedWords({ by, value }: Pick<Worked, 'by' | 'value'>, plan?: FeedingPlan): string {
  if (by === 'state') return STATE_WORDS[value] ?? value;
  if (by === 'light') return LIGHT_WORDS[value] ?? value;
  if (by === 'substrate') return `on ${value.toLowerCase()}`;
  if (by === 'tub') return `in the ${value}`;
  if (by !== 'step') return value;
  const step = [...(plan?.steps ?? []), ...REFUSAL_STEPS].find(({ key }) => key === value);
  return step?.name ?? value;
}
