import { describe, expect, test } from 'vitest';
import type { Pedigree, PedigreeAnimal } from '../pedigree/document.ts';
import { indexPedigree } from '../pedigree/index-pedigree.ts';
import { DomainTable } from './domain-table.ts';
import { narrowDomains } from './domains.ts';
import { LocusEvidence } from './evidence.ts';

const locus = { id: 'c', alleles: ['c'] };
const visual = { c: [{ genotype: ['c', 'c'] as const, p: 1 }] };
const either = {
  c: [
    { genotype: ['+', '+'] as const, p: 0.5 },
    { genotype: ['+', 'c'] as const, p: 0.5 },
  ],
};

/** Each animal's possible pairs, like "+/c c/+". */
function narrowed(animals: PedigreeAnimal[]): {
  possible: boolean;
  pairs: Record<string, string>;
  open: number[];
} {
  const pedigree: Pedigree = { loci: [locus], unrecorded: 0, animals };
  const ties = indexPedigree(pedigree);
  const evidence = new LocusEvidence(locus, ties.size);
  animals.forEach((animal, i) => evidence.read(i, animal.calls ?? [], animal.founder, ties.sex[i]!));
  const table = new DomainTable(2);
  const sireOpen = new Uint8Array(ties.sire.length).fill(1);
  const found = narrowDomains({ ties, evidence, table, sireOpen, unrecorded: 0 });
  const names = ['+/+', '+/c', 'c/+', 'c/c'];
  return {
    possible: found.possible,
    open: [...found.sireOpen],
    pairs: Object.fromEntries(
      animals.map(({ id }, i) => {
        const { pairs } = table.domains[found.place[i]!]!;
        return [id, names.filter((_, cell) => pairs[cell] === 1).join(' ')];
      }),
    ),
  };
}
const call = (...is: [string, string][]) => [{ locus: 'c', is, error: 0 }];

describe('what hard evidence leaves possible', () => {
  test('runs down to the young, and back up to their parents', () => {
    const { pairs } = narrowed([
      { id: 'D', sex: 'female', founder: visual },
      { id: 'S', sex: 'male', founder: either },
      { id: 'Y', sex: 'unknown', dam: 'D', sires: [{ id: 'S', weight: 1 }] },
      { id: 'V', sex: 'unknown', dam: 'D', sires: [{ id: 'S', weight: 1 }], calls: call(['c', 'c']) },
    ]);
    // One visual young proves its sire; the other got one copy from its dam for certain.
    expect(pairs).toEqual({ D: 'c/c', S: '+/c', Y: 'c/+ c/c', V: 'c/c' });
  });

  test('rules out the sire that cannot have given what shows', () => {
    const { open, pairs } = narrowed([
      { id: 'D', sex: 'female', founder: visual },
      { id: 'S', sex: 'male' },
      { id: 'T', sex: 'male', founder: either },
      {
        id: 'Y',
        sex: 'unknown',
        dam: 'D',
        sires: [
          { id: 'S', weight: 1 },
          { id: 'T', weight: 1 },
        ],
        calls: call(['c', 'c']),
      },
    ]);
    expect(open).toEqual([0, 1]);
    expect(pairs['T']).toBe('+/c');
  });

  test('says so where nothing is left', () => {
    const { possible } = narrowed([
      { id: 'D', sex: 'female' },
      { id: 'S', sex: 'male', founder: visual },
      { id: 'Y', sex: 'unknown', dam: 'D', sires: [{ id: 'S', weight: 1 }], calls: call(['c', 'c']) },
    ]);
    expect(possible).toBe(false);
  });

  test('a doubtful call rules out nothing', () => {
    const { pairs } = narrowed([
      { id: 'D', sex: 'female', founder: either },
      { id: 'S', sex: 'male' },
      {
        id: 'Y',
        sex: 'unknown',
        dam: 'D',
        sires: [{ id: 'S', weight: 1 }],
        calls: [{ locus: 'c', is: [['+', '+']], error: 0.1 }],
      },
    ]);
    expect(pairs['Y']).toBe('+/+ c/+');
  });
});
