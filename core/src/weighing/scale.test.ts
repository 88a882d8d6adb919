import { describe, expect, test } from 'vitest';
import { parseScaleLine, SteadyMass, weightDoubt } from './scale.ts';

describe('a line from a scale', () => {
  // The avoirdupois pound is 453.59237 g, the ounce a sixteenth of it (international yard and pound agreement, 1959).
  test.each([
    ['ST,GS,+  123.4 g', 123.4, true],
    ['US,NT,-0001.2g', -1.2, false],
    ['  84.0 g', 84, null],
    ['S   1.234 kg', 1234, true],
    ['1,5 kg', 1500, null],
    ['2 lb', 907.18474, null],
    ['16 oz', 453.59237, null],
  ])('%s', (line, massG, saysStable) => {
    const reading = parseScaleLine(line)!;
    expect(reading.massG).toBeCloseTo(massG, 9);
    expect(reading.saysStable).toBe(saysStable);
  });

  test('what holds no mass is none', () => {
    expect(parseScaleLine('ERR 7')).toBeNull();
    expect(parseScaleLine('')).toBeNull();
    expect(parseScaleLine('12 gold')).toBeNull();
  });
});

describe('the steady mass', () => {
  const feed = (masses: readonly number[], every = 200): (number | null)[] => {
    const steady = new SteadyMass();
    return masses.map((massG, i) => steady.push(i * every, massG));
  };

  test('is found once, when readings lie together for long enough', () => {
    const found = feed([0, 60, 210, 208, 208.2, 208.1, 208, 208.1, 208.2, 208.1, 208, 208.1]);
    expect(found.filter((mass) => mass !== null)).toEqual([208.1]);
    expect(found.findIndex((mass) => mass !== null)).toBeGreaterThanOrEqual(8);
  });

  test('a snake that moves has none', () => {
    expect(feed([200, 210, 196, 215, 202, 208, 199, 214, 205, 197]).every((mass) => mass === null)).toBe(
      true,
    );
  });

  test('the next animal needs an empty pan between', () => {
    const hold = (massG: number) => new Array<number>(9).fill(massG);
    expect(feed([...hold(80), ...hold(95)]).filter(Boolean)).toEqual([80]);
    expect(feed([...hold(80), 0, ...hold(95)]).filter(Boolean)).toEqual([80, 95]);
    expect(feed(hold(1)).filter(Boolean)).toEqual([]);
  });
});

test('a weight far from what was expected is asked about', () => {
  const expected = { lowG: 190, midG: 210, highG: 230 };
  expect(weightDoubt(200, expected)).toBeNull();
  expect(weightDoubt(105, expected)).toMatchObject({ code: 'far-from-expected', facts: { ratio: 0.5 } });
  expect(weightDoubt(420, expected)).toMatchObject({ code: 'far-from-expected', facts: { ratio: 2 } });
  expect(weightDoubt(180, expected)).toMatchObject({
    code: 'lighter-than-expected',
    facts: { massG: 180, lowG: 190, highG: 230 },
  });
  expect(weightDoubt(20, null)).toBeNull();
});
