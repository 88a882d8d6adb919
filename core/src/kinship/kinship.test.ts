import { describe, expect, test } from 'vitest';
import type { PedigreeAnimal } from '../pedigree/document.ts';
import { KinshipTable } from './kinship.ts';

/** `child: dam x sire` line by line. */
function pedigree(lines: string): { animals: PedigreeAnimal[] } {
  const animals = new Map<string, PedigreeAnimal>();
  const founder = (id: string): void => {
    if (!animals.has(id)) animals.set(id, { id, sex: 'unknown' });
  };
  for (const line of lines.trim().split('\n')) {
    const [child, parents] = line.trim().split(': ');
    const [dam, sires] = parents!.split(' x ');
    [dam!, ...sires!.split('/')].forEach(founder);
    animals.set(child!, {
      id: child!,
      sex: 'unknown',
      dam: dam!,
      sires: sires!.split('/').map((id) => ({ id, weight: 1 })),
    });
  }
  return { animals: [...animals.values()] };
}

// Values: Falconer & Mackay 1996, Introduction to Quantitative Genetics, 4th ed., table 5.1 and chapter 5 (from memory).
describe('kinship of the textbooks', () => {
  const family = new KinshipTable(
    pedigree(`
      F1: D x S
      F2: D x S
      H: D x T
      G: F1 x U
      C: F2 x V
      I: F1 x F2
      K: D x F1
    `),
  );
  test.each([
    ['parent and offspring', 'D', 'F1', 1 / 4],
    ['full siblings', 'F1', 'F2', 1 / 4],
    ['half siblings', 'F1', 'H', 1 / 8],
    ['aunt and niece', 'F2', 'G', 1 / 8],
    ['grandparent', 'D', 'G', 1 / 8],
    ['first cousins', 'G', 'C', 1 / 16],
    ['strangers', 'S', 'T', 0],
  ])('%s: %s and %s', (_, a, b, expected) => {
    expect(family.kinship(a, b)).toBeCloseTo(expected, 7);
  });

  test('the young of siblings, and of parent and offspring, are inbred to a quarter (Wright 1922)', () => {
    expect(family.inbreeding('I')).toBeCloseTo(1 / 4, 7);
    expect(family.inbreeding('K')).toBeCloseTo(1 / 4, 7);
    expect(family.relationship('F1', 'F2')).toBeCloseTo(1 / 2, 7);
  });

  test('generations of full-sib mating: 0, 1/4, 3/8, 1/2, 19/32, 43/64 (Wright 1921, Genetics 6; F(t) = (1 + 2F(t-1) + F(t-2))/4)', () => {
    const lines = ['A1: D x S', 'B1: D x S'];
    for (let n = 2; n <= 7; n++) lines.push(`A${n}: A${n - 1} x B${n - 1}`, `B${n}: A${n - 1} x B${n - 1}`);
    const line = new KinshipTable(pedigree(lines.join('\n')));
    const found = [1, 2, 3, 4, 5, 6].map((n) => line.inbreeding(`A${n}`));
    [0, 1 / 4, 3 / 8, 1 / 2, 19 / 32, 43 / 64].forEach((f, n) => expect(found[n]).toBeCloseTo(f, 6));
  });

  test("Wright's path formula on a pedigree with two common ancestors and an inbred one", () => {
    // X has parents P and Q, half sibs through the inbred A (F 1/4): (1/2)^3 (1 + 1/4) = 5/32.
    const inbred = new KinshipTable(
      pedigree(`
        M: D x S
        N: D x S
        A: M x N
        P: A x T
        Q: A x U
        X: P x Q
      `),
    );
    expect(inbred.inbreeding('A')).toBeCloseTo(1 / 4, 7);
    expect(inbred.inbreeding('X')).toBeCloseTo(5 / 32, 7);
  });

  test('with an open sire it is the mean over the candidates', () => {
    const open = new KinshipTable(pedigree('A: D x S/T\nB: E x S'));
    expect(open.kinship('A', 'B')).toBeCloseTo((1 / 8) * (1 / 2), 7);
  });
});
