import { MASS_UNITS } from '@karyotome/words';
import { describe, expect, test } from 'vitest';
import { readActs } from './read-act.ts';

/** The first reading of what was typed. */
const read = (typed: string, unit = MASS_UNITS.g) => readActs(typed, unit)[0];

describe('an act that is typed', () => {
  test.each([
    ['weigh 2601-04 342', '2601-04', 342],
    ['342 g 2601-04 weigh', '2601-04', 342],
    ['Weigh F-12 1,2kg', 'f-12', 1200],
    ['weigh grow 1 2-3 87.5', 'grow 1 2-3', 87.5],
    ['weigh F-12 12 oz', 'f-12', 340.2],
    ['wiegh F-12 340', 'f-12', 340],
  ])('%s: whom, and grams', (typed, target, massG) => {
    expect(read(typed)).toEqual({ verb: 'weigh', target, massG });
  });

  test('a number without a unit is in the reader’s own', () => {
    // 12 oz of 28.349523125 g (453.59237 g to the avoirdupois pound, by definition).
    expect(read('weigh F-12 12', MASS_UNITS.oz)?.massG).toBe(340.2);
  });

  test('where either of two numbers may be the weight, both are read, the last one first', () => {
    expect(readActs('weigh 12 342', MASS_UNITS.g)).toEqual([
      { verb: 'weigh', target: '12', massG: 342 },
      { verb: 'weigh', target: '342', massG: 12 },
      { verb: 'weigh', target: '12 342', massG: null },
    ]);
  });

  test('a weight that no snake has is none', () => {
    expect(read('weigh F-12 30000')?.massG).toBe(null);
  });

  test.each([
    ['ate grow 1 2-3', 't', 'grow 1 2-3'],
    ['grow 1 2-3 took', 't', 'grow 1 2-3'],
    ['refused F-12', 'r', 'f-12'],
    ['F-12 regugitated', 'v', 'f-12'],
    ['shed F-12', 's', 'f-12'],
  ])('%s', (typed, verb, target) => {
    expect(read(typed)).toEqual({ verb, target });
  });

  test.each([
    ['note F-12: a scar, left side', 'F-12', 'a scar, left side'],
    ['note F-12 a scar', 'F-12', 'a scar'],
    ['note grow 1 2-3: loose lid', 'grow 1 2-3', 'loose lid'],
  ])('%s: whom, and what as it was written', (typed, target, note) => {
    expect(read(typed)).toEqual({ verb: 'note', target, note });
  });

  test.each(['clown', '2601-04', 'incubators', 'blueberry', ''])('%s is none', (typed) => {
    expect(readActs(typed, MASS_UNITS.g)).toEqual([]);
  });
});
