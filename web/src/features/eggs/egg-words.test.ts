import type { EggEventView } from '@karyotome/contract';
import { describe, expect, test } from 'vitest';
import { eggsWords, eggWords, freeGroup, logLines, stickTogether, type BoxEgg } from './egg-words.ts';

const egg = (more: Partial<BoxEgg> = {}): BoxEgg => ({
  verdict: 'good',
  massG: null,
  stuck: null,
  marked: false,
  x: 50,
  y: 50,
  state: null,
  ...more,
});
const event = (id: string, eggId: string | null, more: Partial<EggEventView> = {}): EggEventView => ({
  id,
  kind: 'check',
  on: '2026-04-01',
  eggId,
  signs: [],
  young: 1,
  note: null,
  author: 'Maren',
  ...more,
});

describe('an egg in words, for those who cannot see the drawing', () => {
  test('says all that the drawing shows', () => {
    expect(eggWords(egg(), 1)).toBe('Egg 1: good, not weighed');
    const state = {
      stage: 'out' as const,
      since: '2026-05-01',
      wasCut: true,
      young: 2,
      signs: [],
      checkedOn: null,
      worries: ['mould' as const],
    };
    expect(eggWords(egg({ verdict: 'doubtful', massG: 84.5, stuck: 1, marked: true, state }), 3)).toBe(
      'Egg 3: doubtful, 84.5 g, marked, stuck to others, out, twins, cut, mould',
    );
  });

  test('several are named in order', () => {
    expect(eggsWords([3])).toBe('egg 3');
    expect(eggsWords([5, 2, 4])).toBe('eggs 2, 4 and 5');
  });
});

describe('stuck eggs', () => {
  const groups = (eggs: readonly { stuck: number | null }[]) => eggs.map(({ stuck }) => stuck);
  test('become a group of a free number; one taken out leaves no group of one', () => {
    const three = [egg({ stuck: 1 }), egg({ stuck: 1 }), egg(), egg()];
    expect(freeGroup(three)).toBe(2);
    const both = stickTogether(three, new Set([2, 3]), true);
    expect(groups(both)).toEqual([1, 1, 2, 2]);
    expect(groups(stickTogether(both, new Set([0]), false))).toEqual([null, null, 2, 2]);
    // Joined with one of another group: the one that is left behind is alone.
    expect(groups(stickTogether(both, new Set([1, 2]), true))).toEqual([null, 3, 3, null]);
  });
});

describe('the log', () => {
  const positionOf = (id: string): number => Number(id);
  test('one act of several eggs is one line; the latest comes first', () => {
    const lines = logLines(
      [
        event('a', null),
        event('b', '2', { kind: 'pip', on: '2026-05-20' }),
        event('c', '1', { kind: 'pip', on: '2026-05-20' }),
        event('d', '3', { signs: ['mould'], note: 'small' }),
      ],
      positionOf,
    );
    expect(lines.map(({ text, ids }) => [text, ids])).toEqual([
      ['Eggs 1 and 2: pipped', ['b', 'c']],
      ['Egg 3: looked at, mould. small', ['d']],
      ['All eggs: looked at, nothing to note', ['a']],
    ]);
  });
});
