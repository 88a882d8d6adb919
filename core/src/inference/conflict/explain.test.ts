import { describe, expect, test } from 'vitest';
import { compilePedigree } from '../../pedigree/from-records.ts';
import type { RecordedAnimal } from '../../pedigree/recorded-animal.ts';
import { infer } from '../infer.ts';
import { explainConflict } from './explain.ts';
import { HOW_OFTEN } from './hypotheses.ts';

const founder = (id: string, sex: 'female' | 'male', genes: string): RecordedAnimal => ({
  id,
  sex,
  sires: [],
  identification: { record: `r-${id}`, genes, sure: 'certain' },
});
const young = (id: string, genes: string, sex: RecordedAnimal['sex'] = 'unknown'): RecordedAnimal => ({
  id,
  sex,
  dam: 'D',
  sires: [{ id: 'S', weight: 1 }],
  identification: { record: `r-${id}`, genes, sure: 'certain' },
});
const explain = (animals: RecordedAnimal[]) => {
  const pedigree = compilePedigree(animals);
  const [conflict] = infer(pedigree).conflicts;
  return explainConflict(pedigree, [conflict!.locus], conflict!.animals);
};

describe('why records clash', () => {
  test('one odd hatchling among many: wrongly identified, or its parent carries more', () => {
    const clutch = ['a', 'b', 'c', 'd', 'e', 'f'].map((id) => young(id, 'pastel'));
    const ranked = explain([
      founder('S', 'male', 'super pastel'),
      founder('D', 'female', 'normal'),
      ...clutch,
      young('odd', 'clown pastel'),
    ]);
    expect(ranked[0]).toMatchObject({ kind: 'identification', animals: ['odd'] });
    expect(ranked.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
  });

  test('many that clash: the parent carries more, and the shares follow from Bayes by hand', () => {
    // Three non-pastel young of a super pastel sire, and three pastel ones: at once wrong identifications will not do.
    const ranked = explain([
      founder('S', 'male', 'clown'),
      founder('D', 'female', 'normal'),
      young('a', 'clown'),
      young('b', 'clown'),
      young('c', 'normal'),
    ]);
    expect(ranked[0]).toMatchObject({ kind: 'carries-more', animals: ['D'], alleles: ['clown'] });
    // Dam het: (1/2)^3 for three young, times 0.01. Another sire: unrecorded x wild type can give no clown.
    expect(ranked.map(({ kind }) => kind)).not.toContain('sire');
    const alone = ranked.find(({ kind }) => kind === 'bred-alone');
    expect(alone).toBeUndefined();
    expect(HOW_OFTEN['carries-more']).toBe(0.01);
  });

  test('a wrong sire explains a clutch that shows nothing of the recorded one', () => {
    const ranked = explain([
      founder('S', 'male', 'super pastel super enchi'),
      founder('D', 'female', 'normal'),
      young('a', 'normal'),
      young('b', 'normal'),
      young('c', 'normal'),
    ]);
    expect(ranked[0]).toMatchObject({ kind: 'sire', animals: ['a', 'b', 'c'] });
  });

  test('young that are all double for what the dam has one of each: she bred alone', () => {
    const ranked = explain([
      founder('S', 'male', 'normal'),
      founder('D', 'female', 'mojave lesser'),
      young('a', 'super mojave', 'female'),
      young('b', 'super lesser', 'female'),
      young('c', 'super mojave', 'female'),
    ]);
    // Another sire would have to be unrecorded and bring both alleles, at a hundredth each.
    expect(ranked[0]).toMatchObject({ kind: 'bred-alone', animals: ['a', 'b', 'c'] });
    const [first, second] = ranked;
    // (1/2)^3 * 0.0005 against (1/2 * 0.01)^3 * 0.01, by hand.
    expect(second).toMatchObject({ kind: 'sire' });
    expect(first!.share / second!.share).toBeCloseTo((0.5 ** 3 * 0.0005) / (0.005 ** 3 * 0.01), 3);
  });

  test('two slips in one clutch: the wrong records are named, not another sire', () => {
    // Another sire of all eight would have to be unrecorded and bring pastel six times; two slips are 0.02 each.
    const ranked = explain([
      founder('S', 'male', 'super pastel'),
      founder('D', 'female', 'normal'),
      ...['a', 'b', 'c', 'd', 'e', 'f'].map((id) => young(id, 'pastel')),
      young('x', 'normal'),
      young('y', 'normal'),
    ]);
    expect(ranked[0]).toMatchObject({ kind: 'identification' });
    expect(['x', 'y']).toContain(ranked[0]!.animals[0]);
  });

  test('slips too many for any single one still get an explanation', () => {
    const ranked = explain([
      founder('S', 'male', 'super pastel super enchi'),
      founder('D', 'female', 'super mojave'),
      young('a', 'pastel enchi'),
      young('b', 'mojave'),
      young('c', 'pastel enchi mojave'),
    ]);
    expect(ranked.length).toBeGreaterThan(0);
    expect(ranked.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 12);
  });
});
