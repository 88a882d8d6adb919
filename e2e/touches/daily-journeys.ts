import { row, said, type Journey } from './hand.ts';
import { expect } from '../test.ts';

/** Meals, sheds, tubs and rounds. */
export const DAILY_JOURNEYS: readonly Journey[] = [
  {
    act: 'A meal is taken',
    before: 1,
    from: 'Today',
    at: '/today',
    most: 1,
    walk: async (hand) => {
      await hand.touch(row(hand.page, 'meal').getByRole('button', { name: 'Taken' }));
      await said(hand.page, /taken/);
    },
  },
  {
    act: 'A meal is refused',
    before: 1,
    from: 'Today',
    at: '/today',
    most: 1,
    walk: async (hand) => {
      await hand.touch(row(hand.page, 'meal').getByRole('button', { name: 'Refused' }));
      await said(hand.page, /refused/);
    },
  },
  {
    act: 'An entry is taken back',
    before: 2,
    from: 'Today, just entered',
    at: '/today',
    most: 2,
    walk: async (hand) => {
      await hand.touch(row(hand.page, 'clean').getByRole('button', { name: 'Cleaned' }));
      await hand.touch(hand.button('Undo'));
    },
  },
  {
    act: 'A tub is cleaned',
    before: 1,
    from: 'Today',
    at: '/today',
    most: 1,
    walk: async (hand) => {
      await hand.touch(row(hand.page, 'clean').getByRole('button', { name: 'Cleaned' }));
      await said(hand.page, /cleaned/);
    },
  },
  {
    act: 'A weight',
    before: 3,
    from: 'Today',
    at: '/today',
    most: 3,
    walk: async (hand) => {
      await hand.touch(row(hand.page, 'weigh').getByRole('button', { name: 'Weigh', exact: true }));
      await hand.touch(hand.page.getByRole('dialog').getByLabel(/^Weight/));
      await hand.type('640');
      await hand.touch(hand.button('Record'));
      await said(hand.page, /Weight recorded/);
    },
  },
  {
    act: 'A whole rack is fed, with two refusals',
    before: 'one for each meal',
    from: 'Rounds',
    at: '/rounds',
    most: 4,
    walk: async (hand) => {
      await hand.touch(hand.page.getByRole('button', { name: /^Feed all of/ }).first());
      const rows = hand.page.getByRole('dialog').locator('.one');
      await hand.touch(rows.first());
      await hand.touch(rows.nth(1));
      await hand.touch(hand.button(/^Enter: .*2 refused/));
      await said(hand.page, /2 refused/);
    },
  },
  {
    act: 'A dose is given',
    before: null,
    from: 'Today',
    at: '/today',
    most: 1,
    walk: async (hand) => {
      const given = hand.page.locator('.line.dose').getByRole('button', { name: 'Given' }).first();
      await hand.touch(await hand.scrollTo(given));
      await said(hand.page, /dose .* given/);
    },
  },
  {
    act: 'A rack is looked through for mites, with one finding',
    before: null,
    from: 'Today',
    at: '/today',
    most: 3,
    walk: async (hand) => {
      await hand.touch(hand.button('Look through…'));
      await hand.touch(hand.page.getByRole('dialog').locator('.one').first());
      await hand.touch(hand.button(/^Enter: /));
      await said(hand.page, /mites on 1/);
    },
  },
  {
    act: 'A shed, whole',
    before: 1,
    from: 'Today: Sheds',
    at: '/today/sheds',
    most: 1,
    walk: async (hand) => {
      await hand.touch(hand.page.getByRole('button', { name: /Shed whole$/ }).first());
      await said(hand.page, /shed whole/);
    },
  },
  {
    act: 'A round is begun, and the first meal entered',
    before: 2,
    from: 'Rounds',
    at: '/rounds',
    most: 2,
    walk: async (hand) => {
      await hand.touch(hand.page.getByRole('button', { name: /^Begin with/ }).last());
      await hand.touch(hand.page.getByRole('button', { name: /^(Took it|Cleaned)/ }).first());
      await expect(hand.page.locator('.last')).toBeVisible();
    },
  },
];
