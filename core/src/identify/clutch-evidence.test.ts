import jstat from 'jstat';
import { describe, expect, test } from 'vitest';
import { CATALOGUE } from '../catalogue/catalogue.ts';
import { multinomialTest } from '../fit/multinomial-test.ts';
import { infer } from '../inference/infer.ts';
import { parseParent } from '../odds/parent.ts';
import { compilePedigree } from '../pedigree/from-records.ts';
import type { RecordedAnimal } from '../pedigree/recorded-animal.ts';
import { linkedBySex, parentNews, sexClashes } from './clutch-evidence.ts';
import { recordsOf, settledByLater, settledCalls } from './proved.ts';
import { notExcluded, suggestSureness } from './suggest.ts';
import { rank } from './rank.ts';

describe('what a clutch says about its parents', () => {
  /** A sire who may have one copy or two: the young of two single-copy parents that shows the gene. */
  function clutchOf(showing: number, normal: number) {
    const stated = (id: string, sex: 'female' | 'male', genes: string): RecordedAnimal => ({
      id,
      sex,
      sires: [],
      identification: { record: `r-${id}`, genes, sure: 'certain' },
    });
    const young = [...Array(showing).fill('Pinstripe'), ...Array(normal).fill('Normal')].map(
      (genes, i): RecordedAnimal => ({
        id: `young-${i}`,
        sex: 'female',
        dam: 'mate',
        sires: [{ id: 'sire', weight: 1 }],
        identification: { record: `r-${i}`, genes: genes as string, sure: 'certain' },
      }),
    );
    const family: RecordedAnimal[] = [
      stated('granddam', 'female', 'Pinstripe'),
      stated('grandsire', 'male', 'Pinstripe'),
      {
        id: 'sire',
        sex: 'male',
        dam: 'granddam',
        sires: [{ id: 'grandsire', weight: 1 }],
        identification: { record: 'r-sire', genes: 'Pinstripe', sure: 'certain' },
      },
      stated('mate', 'female', 'Normal'),
    ];
    // Stated for certain: whoever is named by a dominant gene alone has one copy.
    const before = infer(compilePedigree(family)).animals.get('sire')!;
    const after = infer(compilePedigree([...family, ...young])).animals.get('sire')!;
    const shown = young.map(({ identification }): Record<string, string> =>
      identification!.genes === 'Normal' ? {} : { pinstripe: 'pinstripe' },
    );
    return parentNews(before, after, shown, CATALOGUE);
  }

  test('nine of nine point to two copies, by Bayes’ rule over one third and two thirds', () => {
    const [news] = clutchOf(9, 0);
    // Prior 1/3 two copies among those that show; each young of a single copy shows with 1/2.
    const exact = 1 / 3 / (1 / 3 + (2 / 3) * 0.5 ** 9);
    expect(news).toMatchObject({ locus: 'pinstripe', allele: 'pinstripe', copies: 2, showing: 9, looked: 9 });
    expect(news!.pBefore).toBeCloseTo(1 / 3, 9);
    expect(news!.p).toBeCloseTo(exact, 9);
    expect(exact).toBeGreaterThan(0.996);
  });

  test('one that does not show settles it for one copy', () => {
    expect(clutchOf(8, 1)[0]).toMatchObject({ copies: 1, p: 1, showing: 8, looked: 9 });
  });
});

describe('sex against sex-linked genes', () => {
  const { parent: dam } = parseParent('Normal', 'female');
  const { parent: maleMaker } = parseParent('Male-Maker Banana', 'male');
  const both = linkedBySex(dam, [{ parent: maleMaker, share: 1 }], CATALOGUE);
  test('a male-maker’s daughter that shows it is a crossover or a wrong sex (recombination 0.07)', () => {
    const [clash] = sexClashes(both, 'female', { banana: 'banana' }, CATALOGUE);
    expect(clash).toMatchObject({ locus: 'banana', label: 'Banana' });
    expect(clash!.p).toBeCloseTo(0.07, 12);
    expect(clash!.pOther).toBeCloseTo(0.93, 12);
    expect(sexClashes(both, 'male', {}, CATALOGUE)[0]!.label).toBe('no Banana');
  });

  test('what fits its sex is not remarked upon', () => {
    expect(sexClashes(both, 'male', { banana: 'banana' }, CATALOGUE)).toEqual([]);
    expect(sexClashes(both, 'female', {}, CATALOGUE)).toEqual([]);
  });
});

describe('the exact test of a clutch', () => {
  test('with two kinds it is the two-sided binomial test of jstat’s probabilities', () => {
    for (const [seen, n] of [
      [4, 6],
      [9, 9],
      [1, 8],
      [0, 5],
    ] as const) {
      const point = jstat.jStat.binomial.pdf(seen, n, 0.5);
      let exact = 0;
      for (let k = 0; k <= n; k++) {
        const p = jstat.jStat.binomial.pdf(k, n, 0.5);
        if (p <= point * (1 + 1e-9)) exact += p;
      }
      expect(multinomialTest([seen, n - seen], [0.5, 0.5]).p).toBeCloseTo(exact, 9);
    }
  });
});

describe('what stays on the label, and how sure', () => {
  const pair = rank(
    [
      {
        sire: 'sire',
        sex: 'female',
        weight: 1,
        loci: ['pastel', 'orange-dream'].map((id) => ({
          locus: id,
          genotypes: [
            { genotype: ['+', '+'], p: 0.5 },
            { genotype: ['+', id], p: 0.5 },
          ],
        })),
      },
    ],
    { 'ground colour: orange': 'not-seen' },
    CATALOGUE,
  ).ranking;
  test('genes that the eye could not rule out are put in brackets', () => {
    const open = notExcluded(pair, { pastel: 'pastel' }, CATALOGUE);
    expect(open.map(({ label }) => label)).toEqual(['Orange Dream']);
    expect(notExcluded(pair, { pastel: 'pastel', 'orange-dream': 'orange-dream' }, CATALOGUE)).toEqual([]);
  });

  test('by the odds, and by how such calls proved right where enough did', () => {
    expect(suggestSureness(0.99, [])).toEqual({ sure: 'certain', learned: null });
    expect(suggestSureness(0.8, []).sure).toBe('probable');
    expect(suggestSureness(0.4, []).sure).toBe('possible');
    const shaky = { phenotype: 'enchi', right: 8, settled: 12 };
    expect(suggestSureness(0.99, [shaky])).toEqual({ sure: 'possible', learned: shaky });
    expect(suggestSureness(0.99, [{ ...shaky, settled: 9 }]).learned).toBeNull();
  });

  test('a later look settles an earlier one: named and right, named and wrong, missed', () => {
    const earlier = { on: '2026-05-01', shown: { pastel: 'pastel', enchi: 'enchi' } };
    const later = { on: '2026-07-01', sure: 'certain' as const, shown: { pastel: 'pastel', fire: 'fire' } };
    const proved = settledByLater(earlier, later);
    const settled = settledCalls([
      { animal: 'a', by: 'Ida', sure: 'probable', on: earlier.on, shown: earlier.shown, proved },
    ]);
    expect(settled.map(({ phenotype, isRight }) => `${phenotype} ${isRight}`).toSorted()).toEqual([
      'enchi false',
      'fire false',
      'pastel true',
    ]);
    expect(recordsOf(settled, 'Ida')).toContainEqual({ phenotype: 'pastel', right: 1, settled: 1 });
    expect(settledByLater(earlier, { ...later, on: '2026-05-08' })).toEqual({});
    expect(settledByLater(earlier, { ...later, sure: 'probable' })).toEqual({});
  });
});
