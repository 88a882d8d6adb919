import { CATALOGUE, parseParent, visibleOutcomes } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { clutchFit } from './clutch-fit.ts';

const outcomes = (sire: string, dam: string) =>
  visibleOutcomes(parseParent(sire, 'male').parent, parseParent(dam, 'female').parent);
const fit = (sire: string, dam: string, seen: string[]) => clutchFit(outcomes(sire, dam), seen, CATALOGUE)!;

describe('a clutch against its pairing', () => {
  test('four pastel of six where three were expected is luck (binomial, by hand)', () => {
    const found = fit('pastel', 'normal', ['pastel', 'pastel', 'pastel', 'pastel', 'normal', 'normal']);
    expect(found.p).toBeCloseTo(44 / 64, 12);
    expect(found.kinds).toContainEqual({ label: 'Pastel', expected: 3, seen: 4 });
  });

  test('nine of nine is not', () => {
    expect(
      fit(
        'pastel',
        'normal',
        Array.from({ length: 9 }, () => 'pastel'),
      ).p,
    ).toBeCloseTo(2 / 512, 12);
  });

  test('carried genes do not count, and what the pair cannot give has no chance', () => {
    expect(fit('clown', 'normal', ['normal', 'het clown']).p).toBe(1);
    expect(fit('clown', 'normal', ['normal', 'pastel']).p).toBe(0);
  });

  test('before anything is identified there is nothing to say', () => {
    expect(clutchFit(outcomes('pastel', 'normal'), [], CATALOGUE)).toBeNull();
  });
});
