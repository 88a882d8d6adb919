import { describe, expect, test } from 'vitest';
import { roundAnimal, roundView } from '../../../test/round.ts';
import { racksOf, targetsOf } from './candidates.ts';
import { findIn } from './find.ts';
import { offeredActs } from './offered-acts.ts';

const round = (() => {
  const { racks, ...view } = roundView('F-12', '2601-04', '2601-05');
  const [rack] = racks;
  return {
    ...view,
    racks: [
      { ...rack!, name: 'Grow 1' },
      {
        id: 'rack-2',
        room: 'Room',
        name: 'Grow 2',
        tubs: [{ tubId: 't', level: 1, slot: 1, animals: [roundAnimal('M-01', { label: 'Clown' })] }],
      },
      {
        id: 'loose',
        room: '',
        name: null,
        tubs: [{ tubId: null, level: 0, slot: 0, animals: [roundAnimal('X-9')] }],
      },
    ],
  };
})();
const targets = targetsOf(round);
const numbers = (typed: string): string[] => findIn(targets, typed).map(({ animal }) => animal.number);

describe('finding', () => {
  test.each([
    ['2601-04', ['2601-04']],
    ['260104', ['2601-04']],
    ['f12', ['F-12']],
    ['clwon', ['M-01']],
    ['without tub', ['X-9']],
    ['nothing of it', []],
  ])('%s, in any order and with a slip', (typed, found) => {
    expect(numbers(typed)).toEqual(found);
  });

  test.each(['grow 1 1-2', '1-2 grow 1'])('%s: first where all of it stands whole', (typed) => {
    expect(numbers(typed)[0]).toBe('2601-04');
  });

  test('a digit is never a slip', () => {
    expect(numbers('2601-06')).toEqual([]);
  });

  test('racks lead to their round', () => {
    expect(findIn(racksOf(round), 'grow 2').map(({ to }) => to)).toEqual(['/rounds?rack=rack-2']);
  });
});

describe('acts that are offered', () => {
  const titles = (typed: string): string[] => offeredActs(typed, targets).map(({ title }) => title);

  test('a weight is held against what was expected before it is entered', () => {
    expect(offeredActs('weigh f-12 210', targets)).toMatchObject([
      { title: 'F-12: 210 g', about: 'Grow 1 1-1, Pastel', fill: null },
    ]);
    const [doubted] = offeredActs('weigh f-12 2100', targets);
    expect(doubted!.about).toContain('2,100 g is');
    expect(doubted!.entries[0]!.entry.record).toMatchObject({ kind: 'weight', body: { massG: 2100 } });
  });

  test('a weight that was not typed yet is asked for', () => {
    expect(offeredActs('weigh f-12', targets)).toMatchObject([{ fill: 'weigh F-12 ', entries: [] }]);
  });

  test('whose place was typed whole is meant, nobody else', () => {
    expect(titles('ate grow 1 1-2')).toEqual(['2601-04: rat pup taken']);
  });

  test('a rack by its name alone: all that are due there', () => {
    const [all] = offeredActs('ate grow 1', targets);
    expect(all).toMatchObject({ title: 'All that are due in Grow 1: took it', about: '3 animals' });
    expect(all!.entries.map(({ animal }) => animal.number)).toEqual(['F-12', '2601-04', '2601-05']);
  });

  test('a shed is never of a whole rack', () => {
    expect(titles('shed grow 1')).toEqual(['F-12: shed whole', '2601-04: shed whole', '2601-05: shed whole']);
  });

  test('who is not due is left out of a rack’s meal', () => {
    const idle = roundAnimal('2601-05', { meal: { ...roundAnimal('1').meal!, verdict: 'wait' } as never });
    const some = targets.map((target) =>
      target.animal.number === '2601-05' ? { ...target, animal: idle } : target,
    );
    expect(offeredActs('ate grow 1', some)[0]!.entries).toHaveLength(2);
  });
});
