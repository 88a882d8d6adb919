import { describe, expect, test } from 'vitest';
import { multinomialTest } from './multinomial-test.ts';

// Mendel 1866, Versuche über Pflanzen-Hybriden: the counts of the seven characters in the second generation, and the
// dihybrid experiment with round/wrinkled and yellow/green seeds.
describe("Mendel's counts", () => {
  const sevenCharacters: [string, number, number, number][] = [
    ['shape of the seeds', 5474, 1850, 2.96],
    ['colour of the albumen', 6022, 2001, 3.01],
    ['colour of the seed coats', 705, 224, 3.15],
    ['shape of the pods', 882, 299, 2.95],
    ['colour of the unripe pods', 428, 152, 2.82],
    ['position of the flowers', 651, 207, 3.14],
    ['length of the stem', 787, 277, 2.84],
  ];
  test.each(sevenCharacters)('%s: %d to %d fits three to one', (_, dominant, recessive, ratio) => {
    expect(dominant / recessive).toBeCloseTo(ratio, 1);
    const { p, expected } = multinomialTest([dominant, recessive], [0.75, 0.25]);
    expect(expected[1]).toBeCloseTo((dominant + recessive) / 4, 9);
    expect(p).toBeGreaterThan(0.3);
    expect(p).toBeLessThanOrEqual(1);
  });

  test('315, 108, 101 and 32 fit nine to three to three to one, as chi square 0.47 on 3 degrees says (p 0.925)', () => {
    const { p } = multinomialTest([315, 108, 101, 32], [9 / 16, 3 / 16, 3 / 16, 1 / 16]);
    expect(p).toBeGreaterThan(0.9);
    expect(p).toBeLessThan(0.95);
  }, 20_000);
});

describe('exact by hand', () => {
  test('nine of nine where half were expected: 2 in 512', () => {
    expect(multinomialTest([9, 0], [0.5, 0.5]).p).toBeCloseTo(2 / 512, 12);
  });

  test('four visible of six where three were expected is luck', () => {
    // Binomial(6, 1/2): all results no likelier than 15/64, that is all but three of six.
    expect(multinomialTest([4, 2], [0.5, 0.5]).p).toBeCloseTo(44 / 64, 12);
  });

  test('what the odds rule out has no chance', () => {
    expect(multinomialTest([3, 1], [1, 0]).p).toBe(0);
    expect(multinomialTest([4, 0], [1, 0]).p).toBe(1);
  });

  test('over all results the probabilities add up to 1', () => {
    // The likeliest of all results leaves nothing out.
    expect(multinomialTest([2, 1, 1], [0.5, 0.25, 0.25]).p).toBeCloseTo(1, 12);
  });
});
