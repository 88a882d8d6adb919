import { CATALOGUE } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { UsageError } from './arguments.ts';
import { runCommand } from './commands.ts';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const run = (...args: string[]) => runCommand(args, () => bytesOf(''));
const json = async (...args: string[]): Promise<Record<string, unknown>> =>
  JSON.parse((await run(...args, '--json')).output) as never;

describe('the command line', () => {
  test('odds answers outcomes, their total, and the target', async () => {
    const answer = await json(
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

  test('top cuts the list, and the total says what it covers', async () => {
    const answer = await json('odds', '--sire', 'het clown', '--dam', 'het clown', '--top', '1');
    expect(answer).toMatchObject({ total: 0.5, outcomes: [{ label: 'Het Clown' }] });
  });

  test('outcomes carry their share among the young that live, where some eggs do not', async () => {
    const answer = await json('odds', '--sire', 'spider', '--dam', 'spider', '--target', 'spider');
    expect(answer['outcomes']).toContainEqual({
      genotype: { 'spider-blackhead': ['spider', 'spider'] },
      p: 0.25,
      pMale: 0.125,
      pFemale: 0.125,
      pHatched: 0,
      label: 'Super Spider',
    });
    expect(answer['target']).toEqual({ p: 0.75, pHatched: expect.closeTo(2 / 3, 12) });
  });

  test('what is possible counts, and the chance that was taken is said', async () => {
    const answer = await json('odds', '--sire', 'ph clown', '--dam', 'clown');
    expect(answer['outcomes']).toMatchObject([
      { label: 'Het Clown', p: 0.75 },
      { label: 'Clown', p: 0.25 },
    ]);
    expect(answer['assumed']).toEqual([{ parent: 'sire', allele: 'clown', p: 0.5 }]);
  });

  test('many genes make a bounded answer, and the total says what it covers', async () => {
    const genes = CATALOGUE.loci
      .filter(({ alleles }) => alleles[0]!.expression === 'recessive')
      .slice(0, 24)
      .map(({ alleles }) => `het ${alleles[0]!.name}`)
      .join(', ');
    const answer = await json('odds', '--sire', genes, '--dam', genes);
    expect((answer['outcomes'] as unknown[]).length).toBe(10_000);
    expect(answer['total']).toBeLessThan(0.1);
  });

  test('parse reads shorthand and writes the canonical label', async () => {
    expect(await json('parse', '66% het clown (OD)')).toMatchObject({
      loci: { clown: [{ genotype: ['+', '+'] }, { genotype: ['+', 'clown'], p: expect.closeTo(2 / 3, 12) }] },
      possible: ['orange-dream'],
      label: '66% Het Clown (Orange Dream)',
      unknown: [],
    });
    expect(await run('parse', 'pastl')).toMatchObject({ code: 2 });
  });

  test('infer answers a pedigree document as the contract has it', async () => {
    const pedigree = JSON.stringify({
      format: 'karyotome-pedigree/1',
      loci: [
        { id: 'clown', alleles: ['clown'] },
        { id: 'yb', alleles: ['yellow-belly', 'asphalt'] },
        { id: 'banana', alleles: ['banana'], sexLinked: true, recombination: 0.07 },
      ],
      assume: { unrecorded: 0.01 },
      animals: [
        {
          id: 'F1',
          sex: 'female',
          founder: {
            clown: [
              { genotype: ['+', 'clown'], p: 0.66 },
              { genotype: ['+', '+'], p: 0.34 },
            ],
          },
        },
        { id: 'M1', sex: 'male' },
        { id: 'M2', sex: 'male' },
        {
          id: 'H1',
          sex: 'unknown',
          dam: 'F1',
          sires: [
            { id: 'M1', weight: 3 },
            { id: 'M2', weight: 1 },
          ],
          calls: [
            {
              locus: 'clown',
              is: [
                ['+', '+'],
                ['+', 'clown'],
              ],
              error: 0,
            },
          ],
        },
      ],
    });
    const { output, code } = await runCommand(['infer', 'family.json', '--json'], () => bytesOf(pedigree));
    expect(code).toBe(0);
    expect(JSON.parse(output)).toMatchObject({
      format: 'karyotome-posterior/1',
      exact: true,
      logLikelihood: 0,
      animals: {
        H1: {
          clown: [
            { genotype: ['+', '+'], p: expect.closeTo(0.67, 12) },
            { genotype: ['+', 'clown'], p: expect.closeTo(0.33, 12) },
          ],
          yb: [{ genotype: ['+', '+'], p: 1 }],
        },
      },
      sires: { H1: { M1: 0.75, M2: 0.25 } },
      sex: { H1: { female: 0.5, male: 0.5 } },
      conflicts: [],
    });
    expect((await runCommand(['infer', '-'], () => bytesOf(pedigree))).output).toContain('H1  sired by M1');
  });

  test('infer exits with 1 where the calls cannot be true, and names a smallest set', async () => {
    const pedigree = JSON.stringify({
      format: 'karyotome-pedigree/1',
      loci: [{ id: 'clown', alleles: ['clown'] }],
      animals: [
        { id: 'D', sex: 'female' },
        { id: 'S', sex: 'male' },
        { id: 'H', dam: 'D', sires: [{ id: 'S' }], calls: [{ locus: 'clown', is: [['clown', 'clown']] }] },
      ],
    });
    const { output, code } = await runCommand(['infer', 'f', '--json'], () => bytesOf(pedigree));
    expect(code).toBe(1);
    expect(JSON.parse(output)).toMatchObject({
      logLikelihood: null,
      conflicts: [{ locus: 'clown', animals: ['H'] }],
      animals: { H: {} },
    });
  });

  test('loci that hold alone but leave no sire clash through the sires', async () => {
    const visual = (locus: string) => ({ [locus]: [{ genotype: [locus, locus], p: 1 }] });
    const call = (locus: string) => ({ locus, is: [['+', locus]] });
    const pedigree = JSON.stringify({
      format: 'karyotome-pedigree/1',
      loci: [
        { id: 'clown', alleles: ['clown'] },
        { id: 'pied', alleles: ['pied'] },
      ],
      animals: [
        { id: 'D', sex: 'female' },
        { id: 'S1', sex: 'male', founder: visual('clown') },
        { id: 'S2', sex: 'male', founder: visual('pied') },
        { id: 'H', dam: 'D', sires: [{ id: 'S1' }, { id: 'S2' }], calls: [call('clown'), call('pied')] },
      ],
    });
    const { output, code } = await runCommand(['infer', 'f', '--json'], () => bytesOf(pedigree));
    expect(code).toBe(1);
    expect(JSON.parse(output)['conflicts']).toEqual([{ locus: 'sires', animals: ['H'] }]);
  });

  test.each([
    [() => bytesOf('{'), 'document: is not JSON'],
    [() => bytesOf('{"format":"other"}'), 'format: must be "karyotome-pedigree/1"'],
    [
      () => {
        throw new Error('gone');
      },
      'file: f cannot be read',
    ],
  ])('infer refuses what it cannot read: %#', async (read, message) => {
    await expect(runCommand(['infer', 'f'], read)).rejects.toThrow(message);
  });

  test.each([
    [['odds', '--dam', 'clown'], 'sire: is missing'],
    [['odds', '--sire', 'clwn', '--dam', 'clown'], 'sire: “clwn” is not a known gene. Did you mean Clown?'],
    [
      ['odds', '--sire', 'clown', '--dam', 'clown', '--target', 'clown', '--eggs', '0'],
      'eggs: must be a whole number',
    ],
    [['odds', '--sire', 'clown', '--dam', 'clown', '--colour', 'x'], 'options: '],
    [['brew'], 'command: is not known'],
  ])('%j is refused with the field at fault', async (args, message) => {
    await expect(run(...args)).rejects.toThrow(UsageError);
    await expect(run(...args)).rejects.toThrow(message);
  });
});
