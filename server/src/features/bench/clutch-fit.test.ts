import { CATALOGUE, phenotypesByLocus, parseParent } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { clutchFit } from './clutch-fit.ts';

const pair = (sire: string, dam: string) =>
  phenotypesByLocus(
    parseParent(dam, 'female').parent,
    [{ parent: parseParent(sire, 'male').parent, share: 1 }],
    CATALOGUE,
  );
const fit = (sire: string, dam: string, seen: string[]) => clutchFit(pair(sire, dam), seen, CATALOGUE);
const times = (n: number, genes: string): string[] => Array.from({ length: n }, () => genes);

describe('a clutch against its pairing', () => {
  test('four pastel of six where three were expected is luck (binomial, by hand)', () => {
    const found = fit('pastel', 'normal', [...times(4, 'pastel'), ...times(2, 'normal')])!;
    expect(found.p).toBeCloseTo(44 / 64, 12);
    expect(found.genes).toMatchObject([{ label: 'Pastel', expected: 3, seen: 4 }]);
  });

  test('nine of nine is not', () => {
    expect(fit('pastel', 'normal', times(9, 'pastel'))!.p).toBeCloseTo(2 / 512, 12);
  });

  test('with more genes the same nine of nine is less of a wonder (Bonferroni)', () => {
    const seen = [...times(5, 'pastel enchi'), ...times(4, 'pastel')];
    expect(fit('pastel enchi', 'normal', seen)!.p).toBeCloseTo(4 / 512, 12);
  });

  test('one of many kinds is no wonder, however many kinds there were', () => {
    expect(fit('pastel enchi fire', 'leopard spotnose', ['pastel enchi'])!.p).toBe(1);
  });

  test('carried genes do not count, and what the pair cannot give has no chance', () => {
    expect(fit('clown', 'normal', ['normal', 'het clown'])).toBeNull();
    expect(fit('clown', 'normal', ['normal', 'pastel'])!.p).toBe(0);
  });

  test('before anything is identified there is nothing to say', () => {
    expect(fit('pastel', 'normal', [])).toBeNull();
  });
});
