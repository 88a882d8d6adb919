import { luckKind, type Luck } from '@karyotome/core';
import { oddsWords, type Reader } from './reader.ts';

const KIND_WORDS: Readonly<Record<ReturnType<typeof luckKind>, string>> = {
  lucky: 'Unusually many.',
  unlucky: 'Unusually few.',
  'as-expected': 'Within what chance gives.',
};

/** What hatched against what was to be expected, and how often chance alone gives as much. */
export function luckWords(luck: Luck, reader: Reader): { text: string; chance: string } {
  const { young, hits, expected, atLeast, atMost } = luck;
  const isMany = hits >= expected;
  return {
    text: `${reader.number(hits)} of ${reader.count(young, 'hatchling', 'hatchlings')}; ${reader.number(expected, 1)} were to be expected.`,
    chance: `${KIND_WORDS[luckKind(luck)]} Chance alone gives as ${isMany ? 'many or more' : 'few or fewer'} ${oddsWords(isMany ? atLeast : atMost)} of the time.`,
  };
}
