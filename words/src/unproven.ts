import type { Inheritance } from '@karyotome/core';

/** Ways in which a look may be inherited. */
export const INHERITANCE_WORDS: Readonly<Record<Inheritance, string>> = {
  'one-copy': 'shows in one copy',
  'two-copies': 'shows in two copies only (recessive)',
  'not-inherited': 'is not inherited',
};

/** What is said to whoever may buy an animal that shows such a look. */
export const unprovenCaution = (name: string): string =>
  `${name}: it looks different. Whether that is inherited is not proven.`;

/** What the young of a test pairing would tell; `apart` are the ways that they tell apart. */
export function apartWords(apart: readonly (readonly Inheritance[])[]): string {
  if (apart.every((ways) => ways.length === 1))
    return apart.length === 3
      ? 'It tells how it is inherited.'
      : `It tells whether it ${apart.map(([way]) => INHERITANCE_WORDS[way!]).join(' or ')}.`;
  const alone = apart.filter((ways) => ways.length === 1).map(([way]) => INHERITANCE_WORDS[way!]);
  const open = apart
    .filter((ways) => ways.length > 1)
    .map((ways) => ways.map((way) => INHERITANCE_WORDS[way]).join(' or '));
  return `It tells whether it ${alone.join(' or ')}. If not, it stays open whether it ${open.join(', or ')}.`;
}
