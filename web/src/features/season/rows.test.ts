import type { BoardFemale, BoardMale } from '@karyotome/contract';
import { describe, expect, test } from 'vitest';
import { against, LOCKED_TODAY, ago, boardFemale, boardMale, forecast, READY } from '../../../test/board.ts';
import { button, mounted } from '../../../test/mounted.ts';
import { farmToday } from '../../format/format.ts';
import FemaleRow from './FemaleRow.vue';
import MaleList from './MaleList.vue';

const row = (one: BoardFemale, more = {}) =>
  mounted(FemaleRow, { female: one, mayBreed: true, carried: null, ...more });
const buttons = (wrapper: ReturnType<typeof row>): string[] =>
  wrapper
    .findAll('.acts > .v-btn, .pairs > .v-btn')
    .map((one) => one.text())
    .filter((text) => text !== '' && text !== 'Why');

describe('a female’s row offers what the night asks for', () => {
  test.each<[string, BoardFemale, string[]]>([
    ['open', boardFemale(null), ['Put a male…']],
    [
      'together',
      boardFemale({ forecast: forecast('together', ago(3), { with: ['m'] }) }),
      ['Lock', 'Separate'],
    ],
    ['apart', boardFemale({ forecast: forecast('apart') }), ['Ovulated', 'Pre-lay shed']],
    ['ovulated', boardFemale({ forecast: forecast('ovulated') }), ['Pre-lay shed']],
    ['pre-lay', boardFemale({ forecast: forecast('pre-lay') }), ['Eggs laid…']],
    [
      'laid',
      boardFemale({
        forecast: forecast('laid'),
        clutch: { id: 'c', name: '2601', day: 20, eggs: 6, hatchedOn: null },
      }),
      ['Eggs'],
    ],
    ['not ready', boardFemale(null, { readiness: { ...READY, ready: false } }), []],
  ])('%s', (_stage, one, expected) => expect(buttons(row(one))).toEqual(expected));

  test('a lock and a separation name the male they are of', async () => {
    const two = boardFemale({
      sires: [
        { id: 'm', number: 'M-1', weight: 1, stored: false },
        { id: 'n', number: 'M-2', weight: 1, stored: false },
      ],
      forecast: forecast('together', ago(3), { with: ['m', 'n'] }),
    });
    const wrapper = row(two);
    await button(wrapper, 'F-1: lock seen with M-2').trigger('click');
    await button(wrapper, 'F-1: separate from M-1').trigger('click');
    expect(wrapper.emitted('note')).toEqual([
      ['lock', 'n'],
      ['separation', 'm'],
    ]);
  });

  test('with a male in the hand there is one thing to do; not for one that has laid', async () => {
    const wrapper = row(boardFemale({ forecast: forecast('apart') }), { carried: boardMale() });
    expect(buttons(wrapper)).toEqual(['Put M-1 here']);
    await button(wrapper, 'Put M-1 here').trigger('click');
    expect(wrapper.emitted('put')).toEqual([['m']]);
    const laid = boardFemale({
      forecast: forecast('laid'),
      clutch: { id: 'c', name: '1', day: 1, eggs: 1, hatchedOn: null },
    });
    expect(buttons(row(laid, { carried: boardMale() }))).toEqual([]);
  });

  test('who may not record sees it all and presses nothing', () => {
    const wrapper = row(boardFemale({ forecast: forecast('together', ago(3), { with: ['m'] }) }), {
      mayBreed: false,
    });
    expect(buttons(wrapper)).toEqual([]);
    expect(wrapper.find('.drop').exists()).toBe(false);
    expect(wrapper.text()).toContain('With M-1 for 3 days, no lock seen');
  });

  test('weight against the floor, age, appetite, what is expected and what to beware of', () => {
    const expected = {
      what: 'eggs' as const,
      from: '2026-11-25',
      middle: '2026-11-28',
      to: '2026-12-02',
      day: 36,
      later: 0.2,
      clutches: 11,
    };
    const text = row(
      boardFemale(
        {
          forecast: forecast('pre-lay', ago(3), { expected: [expected] }),
          cautions: ['Two copies do not live.'],
        },
        { readiness: { ...READY, fastingDays: 44 } },
      ),
    ).text();
    for (const part of [
      '1,800 g (min. 1,500 g)',
      '4.1 years',
      'Day 36, 1 in 5 lay later than this: eggs 25 Nov to 2 Dec',
      'fasting 44 days',
      'Two copies do not live.',
    ])
      expect(text).toContain(part);
    expect(row(boardFemale(null)).text()).toContain('no clutch yet, ate 5 days ago');
    expect(row(boardFemale(null, { massG: null, lastMealOn: null })).text()).toContain('never weighed');
  });
});

describe('the males', () => {
  const list = (males: BoardMale[], more = {}) =>
    mounted(MaleList, {
      males,
      load: 5,
      today: farmToday(),
      mayBreed: true,
      carried: null,
      dragging: false,
      ...more,
    });

  test('say whom they are with, how often they were used, and why they rest', () => {
    const rest = against(LOCKED_TODAY, 70);
    const texts = list([
      boardMale({ with: { id: 'f', number: 'F-1' }, females: 1, lastLockOn: ago(10) }),
      boardMale({ id: 'n', number: 'M-2', females: 0, lastLockOn: null, readiness: rest }),
    ])
      .findAll('.male')
      .map((one) => one.text());
    expect(texts[0]).toContain('With F-1');
    expect(texts[0]).toContain('1 of 5 females, locked 10 days ago');
    expect(texts[1]).toContain('Rest: Locked today');
    expect(texts[1]).toContain('fasting 70 days');
  });

  test('one is picked up and let go with the same button', async () => {
    const one = boardMale();
    const wrapper = list([one]);
    await button(wrapper, 'Select M-1').trigger('click');
    expect(wrapper.emitted('update:carried')).toEqual([[one]]);
    const held = list([one], { carried: one });
    expect(button(held, 'Select M-1').text()).toBe('Selected');
    await button(held, 'Select M-1').trigger('click');
    expect(held.emitted('update:carried')).toEqual([[null]]);
  });

  test('who may not record can neither drag nor pick up', () => {
    const wrapper = list([boardMale()], { mayBreed: false });
    expect(wrapper.find('.grip').exists()).toBe(false);
    expect(wrapper.text()).not.toContain('Select');
  });
});
