import { describe, expect, test } from 'vitest';
import { bothChanges, changeOf, isMadeFrom, ROUTES } from './index.ts';

const record = (kind: string) => ({ kind, on: '2026-11-01', body: {} });

describe('what a write has changed', () => {
  test.each(['weight', 'feeding', 'shed', 'care', 'note'])('a %s: of its animal alone', (kind) => {
    const change = changeOf(ROUTES.addRecord, 'a', record(kind));
    expect(change).toEqual({ tags: ['records'], animals: ['a'] });
    expect(['a', 'b', undefined].map((of) => isMadeFrom('animal', change, of))).toEqual([true, false, true]);
    // Lists show it as well.
    expect(isMadeFrom('today', change, 'b')).toBe(true);
  });

  test.each(['identification', 'sex', 'move'])('a record of %s: maybe of others too', (kind) => {
    const change = changeOf(ROUTES.addRecord, 'a', record(kind));
    expect(change).toEqual({ tags: ['records'] });
    expect(isMadeFrom('animal', change, 'b')).toBe(true);
  });

  test('a round: of those it names, where all of it is daily work', () => {
    const entry = (animalId: string, kind: string) => ({ key: animalId, animalId, record: record(kind) });
    const of = (entries: unknown[]) => changeOf(ROUTES.sendRound, undefined, { entries }).animals;
    expect(of([entry('a', 'weight'), entry('b', 'feeding'), entry('a', 'shed')])).toEqual(['a', 'b']);
    for (const other of [
      entry('c', 'sex'),
      { key: 'k', undo: 'a' },
      null,
      7,
      'text',
      { animalId: 'a', record: null },
    ])
      expect(of([entry('a', 'weight'), other])).toBeUndefined();
  });

  test('of two changes, all that either changed', () => {
    const one = { tags: ['records'], animals: ['a'] } as const;
    const other = { tags: ['records', 'eggs'], animals: ['b', 'a'] } as const;
    expect(bothChanges(one, other)).toEqual({ tags: ['records', 'eggs'], animals: ['a', 'b'] });
    expect(bothChanges(one, { tags: ['eggs'] })).toEqual({ tags: ['records', 'eggs'] });
  });
});
