import { describe, expect, test } from 'vitest';
import { infer } from '../inference/infer.ts';
import { parsePedigree } from './parse-document.ts';
import { writePedigree } from './write-document.ts';

/** A young of a founder with one of three alleles and one with none, called `a`, doubted by a tenth. */
const document = (perLook: boolean) => ({
  format: 'karyotome-pedigree/1',
  loci: [{ id: 'l', alleles: ['a', 'b', 'c'] }],
  animals: [
    {
      id: 'F',
      sex: 'female',
      founder: {
        l: ['a', 'b', 'c'].map((allele) => ({ genotype: ['+', allele], p: 1 / 3 })),
      },
    },
    { id: 'M', sex: 'male' },
    ...['a', 'b', 'c', '+'].map((allele, i) => ({
      id: `H${i}`,
      dam: 'F',
      sires: [{ id: 'M' }],
      calls:
        i === 0 ? [{ locus: 'l', is: [['+', allele]], error: 0.1, ...(perLook ? { perLook } : {}) }] : [],
    })),
    // What others are called tells the looks of the locus apart: +/a, +/b, +/c, the wild type, and the rest.
    ...['a', 'b', 'c', '+'].map((allele, i) => ({
      id: `O${i}`,
      calls: [{ locus: 'l', is: [['+', allele]], error: 0.5 }],
    })),
  ],
});

describe('an error that is shared among the other looks', () => {
  test('is a quarter for each of four others (Bayes, by hand)', () => {
    const share = (perLook: boolean) =>
      infer(parsePedigree(document(perLook)))
        .animals.get('H0')!
        .get('l')!
        .find(({ genotype }) => genotype[1] === 'a')!.p;
    // Before the call: 1/6 each for a, b and c, 1/2 for the wild type.
    expect(share(false)).toBeCloseTo(0.9 / 6 / (0.9 / 6 + 0.1 * (5 / 6)), 12);
    expect(share(true)).toBeCloseTo(0.9 / 6 / (0.9 / 6 + (0.1 / 4) * (5 / 6)), 12);
  });

  test('its likelihood is that of the shares', () => {
    const { logLikelihood } = infer(parsePedigree(document(true)));
    const whole = Math.log((0.9 / 6 + (0.1 / 4) * (5 / 6)) * 0.5 ** 4);
    expect(logLikelihood).toBeCloseTo(whole, 10);
  });

  test('is written as an error of its own that gives the same posterior', () => {
    const pedigree = parsePedigree(document(true));
    const again = parsePedigree(JSON.parse(JSON.stringify(writePedigree(pedigree, (id) => id))));
    const of = (one: typeof pedigree) => infer(one).animals.get('F')!.get('l')!;
    of(again).forEach(({ genotype, p }, i) => {
      expect(genotype).toEqual(of(pedigree)[i]!.genotype);
      expect(p).toBeCloseTo(of(pedigree)[i]!.p, 12);
    });
  });

  test('anything but true or false is refused at its field', () => {
    const wrong = document(true) as { animals: { calls?: { perLook?: unknown }[] }[] };
    wrong.animals[2]!.calls![0]!.perLook = 'yes';
    expect(() => parsePedigree(wrong)).toThrow('animals.H0.calls.0.perLook: must be true or false');
  });
});
