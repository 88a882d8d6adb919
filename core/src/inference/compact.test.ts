import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyPedigree } from '../../test/arbitraries.ts';
import { PosteriorView, toCompact } from './compact.ts';
import { PedigreeEngine } from './engine.ts';
import { readPosterior } from './infer.ts';

test('packed into arrays and read again, a posterior says the same', () => {
  fc.assert(
    fc.property(anyPedigree([0, 0.1], 5, 3), (pedigree) => {
      const engine = new PedigreeEngine(pedigree);
      const whole = readPosterior(engine);
      // Through what threads exchange, too.
      const view = new PosteriorView(structuredClone(toCompact(engine)));
      expect(view.exact).toBe(whole.exact);
      expect(view.conflicts).toEqual(whole.conflicts);
      expect(view.sires).toEqual(whole.sires);
      expect(view.female).toEqual(whole.female);
      for (const { id } of pedigree.animals) expect(view.genotypes(id)).toEqual(whole.animals.get(id));
      expect(view.genotypes('nobody').size).toBe(0);
    }),
    { numRuns: 100 },
  );
});
