import type { Modifiers } from './modifiers.ts';

/**
 * 2/3 is written 66% and 1/3 is written 33%, as the trade does. A percentage of at most two decimals is written as it is,
 * anything else is rounded to a whole percent.
 *
 * @example tradePercent(2 / 3) // "66%"
 * @example tradePercent(0.125) // "12.5%"
 */
export function tradePercent(p: number): string {
  if (Math.abs(p - 2 / 3) < 0.005) return '66%';
  if (Math.abs(p - 1 / 3) < 0.005) return '33%';
  const hundredths = Math.round(p * 10_000);
  if (hundredths > 0 && Math.abs(p * 10_000 - hundredths) < 1e-9) return `${hundredths / 100}%`;
  if (p < 0.005) return 'under 1%';
  if (p > 0.995 && p < 1) return 'over 99%';
  return `${Math.round(p * 100)}%`;
}

/** A gene with what is said of it, as it is read again: "66% Het Clown". */
export function spell(modifiers: Modifiers, name: string): string {
  const words: string[] = [];
  if (modifiers.possible && modifiers.chance === undefined) words.push('Possible');
  if (modifiers.chance !== undefined) words.push(tradePercent(modifiers.chance));
  if (modifiers.het) words.push('Het');
  if (modifiers.visual) words.push('Visual');
  if (modifiers.super) words.push('Super');
  if (modifiers.phase) words.push(modifiers.phase === 'male-maker' ? 'Male-Maker' : 'Female-Maker');
  return [...words, name].join(' ');
}
