import { describe, expect, test } from 'vitest';
import { allStates, callLikelihood, transmission, type State } from './states.ts';

const autosomal = { id: 'a', alleles: ['a', 'b'] };
const linked = { id: 'x', alleles: ['x'], sexLinked: true, recombination: 0.07 };
const state = (first: string, second: string, sex?: 'female' | 'male'): State => ({
  pair: [first, second],
  ...(sex ? { sex } : {}),
});

describe('transmission', () => {
  test('over all genotypes of an offspring it adds up to 1, whatever the parents', () => {
    for (const locus of [autosomal, linked]) {
      for (const dam of allStates(locus, 'female')) {
        for (const sire of allStates(locus, 'male')) {
          for (const sex of ['female', 'male'] as const) {
            const sum = allStates(locus, sex).reduce(
              (total, child) => total + transmission(locus, child, { state: dam }, { state: sire }),
              0,
            );
            expect(sum).toBeCloseTo(1, 12);
          }
        }
      }
    }
  });

  test('two carriers: a quarter, a half, a quarter (Mendel 1866)', () => {
    const carrier = { state: state('+', 'a') };
    expect(transmission(autosomal, state('+', '+'), carrier, carrier)).toBe(0.25);
    expect(transmission(autosomal, state('+', 'a'), carrier, carrier)).toBe(0.5);
    expect(transmission(autosomal, state('a', 'a'), carrier, carrier)).toBe(0.25);
  });

  test('a male-maker gives to sons, a female-maker to daughters, crossovers aside (Mallery & Carrillo 2016)', () => {
    const wild = { state: state('+', '+', 'female') };
    const maleMaker = { state: state('+', 'x', 'male') };
    const femaleMaker = { state: state('x', '+', 'male') };
    expect(transmission(linked, state('+', 'x', 'male'), wild, maleMaker)).toBeCloseTo(0.93, 12);
    expect(transmission(linked, state('+', 'x', 'female'), wild, maleMaker)).toBeCloseTo(0.07, 12);
    expect(transmission(linked, state('+', 'x', 'female'), wild, femaleMaker)).toBeCloseTo(0.93, 12);
    expect(transmission(linked, state('+', 'x', 'male'), wild, femaleMaker)).toBeCloseTo(0.07, 12);
  });

  test('sons of a female with the gene become female-makers: it came on their X', () => {
    const dam = { state: state('+', 'x', 'female') };
    const sire = { state: state('+', '+', 'male') };
    expect(transmission(linked, state('x', '+', 'male'), dam, sire)).toBe(0.5);
    expect(transmission(linked, state('+', 'x', 'male'), dam, sire)).toBe(0);
  });

  test('an unrecorded parent gives each allele at its frequency', () => {
    const nobody = { unrecorded: 0.01 };
    expect(transmission(autosomal, state('+', '+'), nobody, nobody)).toBeCloseTo(0.98 ** 2, 12);
    expect(transmission(autosomal, state('a', 'b'), nobody, nobody)).toBeCloseTo(2 * 0.01 ** 2, 12);
  });
});

test('a call never sees phase, and its error falls on what it excludes', () => {
  const call = { locus: 'x', is: [['+', 'x'] as const], error: 0.1 };
  expect(callLikelihood([call], state('x', '+', 'male'))).toBeCloseTo(0.9, 12);
  expect(callLikelihood([call], state('+', '+', 'male'))).toBeCloseTo(0.1, 12);
  expect(callLikelihood([call, call], state('+', '+', 'male'))).toBeCloseTo(0.01, 12);
});
