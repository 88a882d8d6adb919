import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seededRandom } from '../src/numeric/random.ts';
import type { Genotype } from '../src/loci/genotype.ts';
import type { Pedigree, PedigreeAnimal } from '../src/pedigree/document.ts';

/*
 * Single-locus pedigrees for Debian's fastlink 4.1P (Cottingham, Idury & Schäffer 1993, Am. J. Hum. Genet. 53), which
 * computes pedigree likelihoods independently of us. It wants no loops unless they are broken by hand, so these have none.
 */

export interface LinkagePedigree {
  readonly pedigree: Pedigree;
  /** Frequency of the second allele among founders, in Hardy-Weinberg proportions. */
  readonly frequency: number;
  /** P(affected | fewer than two copies); P(unaffected | two copies) is the same. */
  readonly error: number;
}

const NOT_VISUAL: Genotype[] = [
  ['+', '+'],
  ['+', 'c'],
];
const VISUAL: Genotype[] = [['c', 'c']];

/** A family without loops: every mating is with a new founder. Phenotypes are drawn, and some are left unseen. */
export function looplessPedigree(count: number, seed: number, error: number): LinkagePedigree {
  const random = seededRandom(seed);
  const frequency = 0.3;
  const animals: PedigreeAnimal[] = [];
  const truth: (readonly [number, number])[] = [];
  const matings: number[] = [];
  const founder = {
    c: [
      { genotype: ['+', '+'] as Genotype, p: (1 - frequency) ** 2 },
      { genotype: ['+', 'c'] as Genotype, p: 2 * frequency * (1 - frequency) },
      { genotype: ['c', 'c'] as Genotype, p: frequency ** 2 },
    ],
  };
  const allele = (): number => (random() < frequency ? 1 : 0);
  const add = (animal: PedigreeAnimal, pair: readonly [number, number]): number => {
    const shows = (pair[0] + pair[1] === 2) !== random() < error;
    const seen = random() < 0.75;
    animals.push({ ...animal, calls: seen ? [{ locus: 'c', is: shows ? VISUAL : NOT_VISUAL, error }] : [] });
    truth.push(pair);
    matings.push(0);
    return animals.length - 1;
  };
  const sexOf = (): 'female' | 'male' => (random() < 0.5 ? 'female' : 'male');
  add({ id: '1', sex: 'female', founder }, [allele(), allele()]);
  while (animals.length < count) {
    const open = animals.map((_, i) => i).filter((i) => matings[i]! < 3);
    const one = open[Math.floor(random() * open.length)]!;
    const mate = add(
      { id: String(animals.length + 1), sex: animals[one]!.sex === 'female' ? 'male' : 'female', founder },
      [allele(), allele()],
    );
    matings[one]!++;
    matings[mate] = 3;
    const [dam, sire] = animals[one]!.sex === 'female' ? [one, mate] : [mate, one];
    for (let eggs = 1 + Math.floor(random() * 5); eggs > 0; eggs--) {
      const from = (parent: number): number => truth[parent]![random() < 0.5 ? 0 : 1];
      add(
        {
          id: String(animals.length + 1),
          sex: sexOf(),
          dam: animals[dam]!.id,
          sires: [{ id: animals[sire]!.id, weight: 1 }],
        },
        [from(dam), from(sire)],
      );
    }
  }
  return { pedigree: { loci: [{ id: 'c', alleles: ['c'] }], unrecorded: 0, animals }, frequency, error };
}

/**
 * The natural logarithm of the likelihood, as fastlink has it.
 *
 * Its output is scaled by a constant of the pedigree's, so the likelihood of the same pedigree with nothing seen (which is 1)
 * is taken off. A second, unlinked and untyped locus is there because the program wants two.
 */
export function fastlinkLogLikelihood(linkage: LinkagePedigree): number {
  return totals(linkage, true) - totals(linkage, false);
}

export function totals(linkage: LinkagePedigree, seen: boolean): number {
  const folder = mkdtempSync(join(tmpdir(), 'linkage-'));
  try {
    writeLinkageFiles(folder, linkage, seen);
    execFileSync('unknown', { cwd: folder, stdio: 'ignore' });
    execFileSync('mlink', { cwd: folder, stdio: 'ignore' });
    const line = readFileSync(join(folder, 'outfile.dat'), 'utf8').match(/TOTALS\s+(-?[\d.]+)/);
    return Number(line![1]);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

export function writeLinkageFiles(
  folder: string,
  { pedigree, frequency, error }: LinkagePedigree,
  seen: boolean,
): void {
  const { animals } = pedigree;
  const sire = (animal: PedigreeAnimal): string => animal.sires?.[0]?.id ?? '0';
  const next = (after: number, parent: string, of: (animal: PedigreeAnimal) => string): string =>
    parent === '0' ? '0' : (animals.slice(after + 1).find((animal) => of(animal) === parent)?.id ?? '0');
  const dam = (animal: PedigreeAnimal): string => animal.dam ?? '0';
  const lines = animals.map((animal, i) => {
    const first = animals.find((other) => dam(other) === animal.id || sire(other) === animal.id)?.id ?? '0';
    const call = animal.calls?.[0];
    const status = !seen || !call ? 0 : call.is === VISUAL ? 2 : 1;
    return [
      1,
      animal.id,
      sire(animal),
      dam(animal),
      first,
      next(i, sire(animal), sire),
      next(i, dam(animal), dam),
      animal.sex === 'male' ? 1 : 2,
      i === 0 ? 1 : 0,
      status,
      0,
      0,
    ].join(' ');
  });
  writeFileSync(join(folder, 'pedfile.dat'), `${lines.join('\n')}\n`);
  const penetrance = [error, error, 1 - error].map((p) => p.toFixed(6)).join(' ');
  writeFileSync(
    join(folder, 'datafile.dat'),
    [
      '2 0 0 5',
      '0 0.0 0.0 0',
      '1 2',
      '1 2',
      `${(1 - frequency).toFixed(6)} ${frequency.toFixed(6)}`,
      '1',
      penetrance,
      '3 2',
      '0.500000 0.500000',
      '0 0',
      '0.500000',
      '1 0.100000 0.450000',
      '',
    ].join('\n'),
  );
}
