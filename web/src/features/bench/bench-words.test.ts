import { CATALOGUE, createCatalogue } from '@karyotome/core';
import { describe, expect, test } from 'vitest';
import { benchView, halfOf, hatchling } from '../../../test/bench.ts';
import {
  fitWords,
  genesInPlay,
  lastShedOf,
  newsWords,
  ownersWords,
  pairChance,
  pullsOf,
  sireTable,
  stillToDo,
  markersInPlay,
} from './bench-words.ts';
import { callsOption, surenessPoints } from './calls-option.ts';

describe('the clutch in words', () => {
  test('luck is not news, what the pair cannot give is', () => {
    expect(fitWords(0.4)).toContain('Luck, not news');
    expect(fitWords(0.001)).toContain('Recheck');
    expect(fitWords(0)).toBe('As recorded, the pair cannot give this.');
  });

  test('nine of nine, with the odds before and after', () => {
    const news = { locus: 'pastel', allele: 'pastel', label: 'Super Pastel', copies: 2 as const };
    expect(newsWords({ ...news, pBefore: 1 / 3, p: 0.996, showing: 9, looked: 9 })).toBe(
      'Super Pastel: 9 of 9 show it: 99.6%, 33.3% before this clutch',
    );
  });

  test('what is left to do comes in the order of the work, and a stale label is to be printed', () => {
    expect(stillToDo(hatchling('1'))).toEqual(['identify', 'sex', 'weigh', 'picture', 'label', 'tub']);
    const done = hatchling('1', {
      identified: true,
      sex: 'male',
      massG: 66,
      pictureIds: ['p'],
      tub: { tubId: 't', rackId: 'k', room: 'r', rack: 'k', level: 1, slot: 1 },
      printedLabel: { issue: 1, kind: 'full', printedAt: '2026-08-20T10:00:00Z', isOutOfDate: true },
    });
    expect(stillToDo(done)).toEqual(['label']);
  });

  test('who sired whom is a table only where there is a question', () => {
    const view = benchView([hatchling('1', { sires: [{ id: 's', number: 'M-1', p: 0.8 }] })]);
    expect(sireTable(view)).toEqual([]);
    const two = { ...view, sires: [view.sires[0]!, { ...view.sires[0]!, id: 't' }] };
    expect(sireTable(two)).toEqual([{ number: '1', odds: [0.8, 0] }]);
  });

  test('the second shed is reckoned from the last one on record, or from hatching', () => {
    expect(lastShedOf({ records: [], hatchedOn: '2026-08-01' })).toBe('2026-08-09');
    const shed = (on: string, voided: null | object) =>
      ({ kind: 'shed', on, body: { stage: 'shed' }, voided }) as never;
    expect(lastShedOf({ records: [shed('2026-09-01', {}), shed('2026-08-10', null)], hatchedOn: null })).toBe(
      '2026-08-10',
    );
  });
});

describe('pulling out', () => {
  test('by markers seen and not seen, by sex, by what is left; never by what all of them share', () => {
    const two = [hatchling('1', { sex: 'male' }), hatchling('2', { identified: true, label: 'Pastel' })];
    const seen = { 'id-1': { 'back: blushed': 'seen' }, 'id-2': { 'back: blushed': 'not-seen' } } as const;
    const pulls = pullsOf(two, ({ id }) => seen[id as 'id-1']);
    expect(pulls.map(({ words, ids }) => [words, [...ids]])).toEqual([
      ['back: blushed', ['id-1']],
      ['male', ['id-1']],
      ['not back: blushed', ['id-2']],
      ['not identified', ['id-1']],
      ['not sexed', ['id-2']],
    ]);
    expect(pullsOf([two[0]!], () => ({}))).toEqual([]);
  });
});

describe('markers of a clutch', () => {
  const genes = genesInPlay([hatchling('1', { hypotheses: halfOf('pastel', 'gravel') })]);

  test('only those of genes that it can show', () => {
    expect([...genes]).toEqual(['pastel', 'gravel']);
    const ids = markersInPlay(CATALOGUE, genes).map(({ id }) => id);
    expect(ids).toContain('lips: pale');
    expect(ids).toContain('belly edge: speckled, subtle');
    expect(ids).not.toContain('flanks: drops that hang from the back');
  });

  test('whose they are: shared ones, doubles, markers, one’s own', () => {
    const marker = (id: string) => CATALOGUE.markers.find((one) => one.id === id)!;
    expect(ownersWords(marker('belly edge: speckled, subtle'), CATALOGUE)).toBe('Gravel, Spark');
    expect(ownersWords(marker('head top: small notches behind the eyes'), CATALOGUE)).toBe(
      'two copies of Pastel',
    );
    expect(
      ownersWords(
        CATALOGUE.markers.find(({ isOfCarriers }) => isOfCarriers)!,
        CATALOGUE,
      ),
    ).toBe('at times, carriers of Pied');
    const own = createCatalogue({
      markers: [{ phenotype: 'pastel', zone: 'lips', text: 'pale', pWith: 0.7, pWithout: 0.2 }],
    });
    expect(own.markers.find(({ id }) => id === 'lips: pale')).toMatchObject({ isOwn: true, pWith: 0.7 });
  });

  test('the pair’s own chance of a look', () => {
    const { outcomes } = benchView([]);
    expect(pairChance(outcomes, { pastel: 'pastel' })).toBeCloseTo(0.25, 12);
    expect(pairChance(outcomes, { enchi: 'enchi' })).toBe(0);
  });
});

describe('how calls proved', () => {
  const points = surenessPoints([
    { sure: 'certain', right: 19, settled: 20 },
    { sure: 'probable', right: 8, settled: 10 },
    { sure: 'possible', right: 0, settled: 0 },
  ]);

  test('each word beside what it promises, with its interval', () => {
    expect(points.map(({ promised }) => promised)).toEqual([1, 0.9, 0.7]);
    expect(points[1]!.proved.low).toBeLessThan(0.8);
    expect(points[2]!.proved.share).toBeNull();
  });

  test('the chart has a line to keep to, an interval and a point for each word that was settled', () => {
    const { series } = callsOption(points, { ink: '#000', soft: '#888', line: '#a00' }) as {
      series: { type: string; data: { name?: string; value?: number[] }[] }[];
    };
    expect(series.map(({ type }) => type)).toEqual(['line', 'line', 'line', 'scatter']);
    expect(series.at(-1)!.data.map(({ name, value }) => [name, value])).toEqual([
      ['certain', [100, 95]],
      ['probable', [90, 80]],
    ]);
  });
});
