import { describe, expect, test } from 'vitest';
import { runCommand, UsageError } from './commands.ts';

const run = (...args: string[]) => runCommand(args, () => '');
const json = (...args: string[]): Record<string, unknown> =>
  JSON.parse(run(...args, '--json').output) as never;

describe('the command line', () => {
  test('odds answers outcomes, their total, and the target', () => {
    const answer = json(
      'odds',
      '--sire',
      'pastel het clown',
      '--dam',
      'het clown',
      '--target',
      'pastel clown',
      '--eggs',
      '5',
    );
    expect(answer['total']).toBeCloseTo(1, 12);
    expect(answer['outcomes']).toContainEqual({
      genotype: { clown: ['clown', 'clown'], pastel: ['+', 'pastel'] },
      p: 0.125,
      pMale: 0.0625,
      pFemale: 0.0625,
      label: 'Pastel Clown',
    });
    // 1 - (7/8)^5, by hand.
    expect(answer['target']).toEqual({ p: 0.125, atLeastOne: expect.closeTo(0.4870911, 7) });
  });

  test('top cuts the list, and the total says what it covers', () => {
    const answer = json('odds', '--sire', 'het clown', '--dam', 'het clown', '--top', '1');
    expect(answer).toMatchObject({ total: 0.5, outcomes: [{ label: 'Het Clown' }] });
  });

  test('parse reads shorthand and writes the canonical label', () => {
    expect(json('parse', '66% het clown (OD)')).toMatchObject({
      loci: { clown: [{ genotype: ['+', '+'] }, { genotype: ['+', 'clown'], p: expect.closeTo(2 / 3, 12) }] },
      possible: ['orange-dream'],
      label: '66% Het Clown (Orange Dream)',
      unknown: [],
    });
    expect(run('parse', 'pastl')).toMatchObject({ code: 2 });
  });

  test.each([
    [['odds', '--dam', 'clown'], 'sire: is missing'],
    [['odds', '--sire', 'clwn', '--dam', 'clown'], 'sire: "clwn" is unknown; did you mean Clown?'],
    [
      ['odds', '--sire', 'clown', '--dam', 'clown', '--target', 'clown', '--eggs', '0'],
      'eggs: must be a whole number',
    ],
    [['odds', '--sire', 'clown', '--dam', 'clown', '--colour', 'x'], 'options: '],
    [['brew'], 'command: is not known'],
  ])('%j is refused with the field at fault', (args, message) => {
    expect(() => run(...args)).toThrow(UsageError);
    expect(() => run(...args)).toThrow(message);
  });
});
