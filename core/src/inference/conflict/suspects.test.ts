import { describe, expect, test } from 'vitest';
import { compilePedigree } from '../../pedigree/from-records.ts';
import type { RecordedAnimal } from '../../pedigree/recorded-animal.ts';
import { PedigreeEngine } from '../engine.ts';
import { conflictsOf } from '../infer.ts';
import { explainConflict } from './explain.ts';
import { doubtfulRecords, suspectRecords } from './suspects.ts';

const founder = (id: string, sex: 'female' | 'male', genes: string): RecordedAnimal => ({
  id,
  sex,
  sires: [],
  identification: { record: `r-${id}`, genes, sure: 'certain' },
});
const young = (
  id: string,
  genes: string,
  [dam, sire] = ['D', 'S'],
  sure: 'certain' | 'probable' = 'certain',
): RecordedAnimal => ({
  id,
  sex: 'female',
  dam,
  sires: [{ id: sire!, weight: 1 }],
  identification: { record: `r-${id}`, genes, sure },
});

function suspicions(animals: RecordedAnimal[]) {
  const pedigree = compilePedigree(animals);
  const engine = new PedigreeEngine(pedigree);
  const explained = conflictsOf(engine).map((conflict) => ({
    conflict,
    explanations: explainConflict(pedigree, conflict.loci, conflict.animals),
  }));
  const found = suspectRecords(engine, explained);
  const enough = found.suspects.filter(({ isEnough }) => isEnough).map(({ animal }) => animal);
  return { ...found, enough };
}

describe('records to look at again', () => {
  const clutch = ['a', 'b', 'c', 'd', 'e', 'f'].map((id) => young(id, 'pastel'));
  const family = [founder('S', 'male', 'super pastel'), founder('D', 'female', 'normal'), ...clutch];

  test('one odd record among right ones is all that has to be looked at', () => {
    const { suspects, enough, supposed, tooWide } = suspicions([...family, young('odd', 'normal')]);
    expect(enough).toEqual(['odd']);
    expect(suspects.map(({ animal }) => animal)).toEqual(['odd']);
    // Every young of these parents has one copy: the record is wrong for certain.
    expect(suspects[0]).toMatchObject({ record: 'r-odd', locus: 'pastel' });
    expect(suspects[0]!.pWrong).toBeCloseTo(1, 12);
    expect(supposed).toEqual([]);
    expect(tooWide).toEqual([]);
  });

  test('several slips at several loci are listed in one pass', () => {
    const { suspects, enough } = suspicions([
      founder('S', 'male', 'super pastel super enchi'),
      founder('D', 'female', 'normal'),
      ...['a', 'b', 'c', 'd', 'e'].map((id) => young(id, 'pastel enchi')),
      young('x', 'enchi'),
      young('y', 'enchi'),
      young('z', 'pastel'),
    ]);
    expect(enough.toSorted()).toEqual(['x', 'y', 'z']);
    const listed = suspects.map(({ animal, locus }) => `${animal} ${locus}`).toSorted();
    expect(listed).toEqual(['x pastel', 'y pastel', 'z enchi-complex']);
  });

  test('where it may be one or the other, chances and gain follow by hand', () => {
    // A super pastel called normal would have no young called normal: the dam's record or her young's is wrong.
    const { suspects, doubt, enough } = suspicions([
      founder('S', 'male', 'pastel'),
      founder('D', 'female', 'pastel'),
      young('p', 'super pastel'),
      founder('M', 'male', 'normal'),
      young('q', 'normal', ['p', 'M']),
    ]);
    expect(enough).toHaveLength(1);
    const of = (animal: string) => suspects.find((one) => one.animal === animal)!;
    /*
     * p is super (1/4), pastel (1/2) or normal (1/4), each look but its own called wrongly at 0.02 / 2; q is pastel of a super, one
     * or the other of a pastel, normal of a normal. Weight of each case: p's prior x P(p's call) x q's chance x P(q's call).
     */
    const [right, wrong] = [0.98, 0.01];
    const weights = {
      superPastel: (1 / 4) * right * wrong,
      pastelPastel: (1 / 2) * wrong * (1 / 2) * wrong,
      pastelNormal: (1 / 2) * wrong * (1 / 2) * right,
      normalNormal: (1 / 4) * wrong * right,
    };
    const total = Object.values(weights).reduce((a, b) => a + b, 0);
    const pWrong = 1 - weights.superPastel / total;
    const qWrong = (weights.superPastel + weights.pastelPastel) / total;
    expect(of('p').pWrong).toBeCloseTo(pWrong, 10);
    expect(of('q').pWrong).toBeCloseTo(qWrong, 10);
    const bits = (p: number): number => -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
    expect(doubt).toBeCloseTo(bits(pWrong) + bits(qWrong), 8);
    // p looked at and right: q is wrong for certain. p wrong: q may be wrong all the same.
    const qWrongThen = weights.pastelPastel / (total - weights.superPastel);
    expect(of('p').gain).toBeCloseTo(doubt - pWrong * bits(qWrongThen), 8);
  });

  test('a record is not blamed for what a founder may carry unsaid', () => {
    const { suspects } = suspicions([
      founder('S', 'male', 'clown'),
      founder('D', 'female', 'normal'),
      young('a', 'clown'),
    ]);
    // By hand: of 1.01 dams 0.01 carry clown, and half of their young by a clown male show it.
    const isWrong = 1 * 0.02 + 0.01 * 0.5 * 0.02;
    const isRight = 0.01 * 0.5 * 0.98;
    expect(suspects[0]).toMatchObject({ animal: 'a', isEnough: true });
    expect(suspects[0]!.pWrong).toBeCloseTo(isWrong / (isWrong + isRight), 10);
  });

  test('a clutch of another sire is not blamed on its young one by one', () => {
    const { supposed, suspects, enough } = suspicions([
      founder('S', 'male', 'super pastel super enchi'),
      founder('D', 'female', 'normal'),
      young('a', 'normal'),
      young('b', 'normal'),
      young('c', 'normal'),
    ]);
    expect(supposed[0]).toMatchObject({ kind: 'sire', animals: ['a', 'b', 'c'] });
    expect(suspects).toEqual([]);
    expect(enough).toEqual([]);
  });

  test('records that agree leave nothing to look at', () => {
    expect(suspicions(family)).toEqual({ suspects: [], doubt: 0, enough: [], supposed: [], tooWide: [] });
  });
});

describe('doubtful records', () => {
  const parents = [founder('S', 'male', 'pastel'), founder('D', 'female', 'normal')];
  const doubtful = (animals: RecordedAnimal[], errorOf?: () => number) =>
    doubtfulRecords(new PedigreeEngine(compilePedigree(animals)), 'pastel', errorOf);

  test('a record that its own young make unlikely is doubtful, a plain one is not', () => {
    const mother = young('m', 'normal', ['D', 'S'], 'probable');
    const mate = founder('N', 'male', 'normal');
    const grandchildren = ['g', 'h', 'i'].map((id) => young(id, 'pastel', ['m', 'N'], 'probable'));
    const found = doubtful([...parents, mother, mate, ...grandchildren])!;
    expect(found[0]).toMatchObject({ animal: 'm', record: 'r-m', locus: 'pastel' });
    expect(found.map(({ animal }) => animal)).toEqual(['m']);
    // By hand: m pastel, P(call normal) = 0.1 / 2, three young pastel or not; m normal, all three wrong.
    const [right, wrong] = [0.9, 0.1 / 2];
    const pastel = wrong * ((right + wrong) / 2) ** 3;
    const normal = right * wrong ** 3;
    expect(found[0]!.pWrong).toBeCloseTo(pastel / (pastel + normal), 10);
    expect(doubtful([...parents, mother])).toEqual([]);
  });

  test('certain records are doubted as far as their person errs', () => {
    const animals = [...parents, young('m', 'super pastel'), young('n', 'pastel')];
    // No young of these parents has two copies, so the first is a conflict; the second is a plain one.
    expect(doubtful([...parents, young('n', 'pastel')], () => 0.4)).toEqual([]);
    expect(doubtful(animals, () => 0.4)!.map(({ animal }) => animal)).toEqual(['m']);
  });
});
