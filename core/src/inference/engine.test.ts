import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anyPedigree } from '../../test/arbitraries.ts';
import type { Pedigree } from '../pedigree/document.ts';
import { ConsistencyCheck } from './conflict/consistency.ts';
import { smallestConflict } from './conflict/smallest-set.ts';
import { PedigreeEngine } from './engine.ts';
import { readPosterior } from './infer.ts';

const plain = (engine: PedigreeEngine): unknown => {
  const { animals, sires, female, ...rest } = readPosterior(engine);
  // Adding nothing turns -0 into 0.
  const round = (p: number): number => Math.round(p * 1e9) / 1e9 + 0;
  return {
    ...rest,
    logLikelihood: rest.logLikelihood === null ? null : round(rest.logLikelihood),
    animals: [...animals].map(([id, loci]) => [
      id,
      [...loci].map(([l, list]) => [l, list.map((g) => [g.genotype.join(), round(g.p)])]),
    ]),
    sires: [...sires].map(([id, odds]) => [id, [...odds].map(([sire, p]) => [sire, round(p)])]),
    female: [...female].map(([id, p]) => [id, round(p)]),
  };
};

describe('an engine that is kept up to date', () => {
  test('answers as a new one would, after calls change and animals are added', () => {
    fc.assert(
      fc.property(
        anyPedigree([0, 0.1], 6, 3),
        fc.array(fc.tuple(fc.nat(9), fc.nat(2)), { minLength: 1, maxLength: 4 }),
        fc.nat(4),
        (pedigree, changes, cut) => {
          // It starts with some animals missing at the end, and learns of them and of changed calls step by step.
          const shown = (animals: number): Pedigree => ({
            ...pedigree,
            animals: pedigree.animals.slice(0, animals),
          });
          let now = shown(Math.max(3, pedigree.animals.length - cut));
          const engine = new PedigreeEngine(now);
          for (const [which, kind] of changes) {
            const length =
              kind === 0 ? Math.min(pedigree.animals.length, now.animals.length + 1) : now.animals.length;
            const at = which % now.animals.length;
            now = {
              ...now,
              animals: shown(length).animals.map((animal, i) => {
                const before = now.animals[i] ?? animal;
                return kind > 0 && i === at
                  ? { ...before, calls: kind === 1 ? [] : (animal.calls ?? []) }
                  : before;
              }),
            };
            engine.update(now);
            expect(plain(engine)).toEqual(plain(new PedigreeEngine(now)));
          }
        },
      ),
      { numRuns: 400 },
    );
  }, 60_000);
});

/** The slow judge: every set of callers, the small ones first. */
function smallestSize(check: ConsistencyCheck): number {
  const callers = check.callers();
  const sets = Array.from({ length: 2 ** callers.length }, (_, bits) =>
    callers.filter((_caller, k) => (bits >> k) & 1),
  );
  for (const set of sets.toSorted((a, b) => a.length - b.length))
    if (!check.holds(new Set(set))) return set.length;
  return 0;
}

describe('records that cannot hold together', () => {
  test('the set is as small as can be, clashes, and holds without any one of its animals', () => {
    let clashes = 0;
    fc.assert(
      fc.property(anyPedigree([0], 8, 2), (pedigree) => {
        const check = new ConsistencyCheck(
          pedigree,
          pedigree.loci.map((locus) => locus.id),
        );
        const found = smallestConflict(check);
        expect(found).toHaveLength(smallestSize(check));
        if (found.length === 0) return;
        clashes++;
        expect(check.holds(new Set(found))).toBe(false);
        for (const one of found)
          expect(check.holds(new Set(found.filter((other) => other !== one)))).toBe(true);
      }),
      { numRuns: 300 },
    );
    expect(clashes).toBeGreaterThan(30);
  }, 60_000);
});
