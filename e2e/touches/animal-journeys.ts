import { row, said, type Journey } from './hand.ts';
import { expect } from '../test.ts';

/** Weights, finding, health, clutches, sales and the season. */
export const ANIMAL_JOURNEYS: readonly Journey[] = [
  {
    act: 'A weight in a round',
    before: 2,
    from: 'Rounds, at the tub',
    at: '/rounds',
    most: 3,
    walk: async (hand) => {
      await hand.page
        .getByRole('button', { name: /^Begin with/ })
        .first()
        .tap();
      await hand.touch(hand.button(/^Weigh/));
      // Another weight than the one expected would be asked about.
      const said = await hand.page
        .getByText(/Expected \d+ g to \d+ g/)
        .first()
        .textContent();
      const [low, high] = [.../(\d+) g to (\d+) g/.exec(said!)!].slice(1).map(Number);
      const massG = String(Math.round((low! + high!) / 2));
      await hand.key(massG);
      await hand.touch(hand.button(/^Keep/));
      await expect(hand.page.locator('.last')).toContainText(massG);
    },
  },
  {
    act: 'A note in a round',
    before: 3,
    from: 'Rounds, at the tub',
    at: '/rounds',
    most: 3,
    walk: async (hand) => {
      await hand.page
        .getByRole('button', { name: /^Begin with/ })
        .first()
        .tap();
      await hand.touch(hand.button(/^Note/));
      await hand.touch(hand.page.getByRole('dialog').getByLabel('Private note'));
      await hand.type('drinks much');
      await hand.touch(hand.button(/^Keep/));
      await expect(hand.page.locator('.last')).toContainText('drinks much');
    },
  },
  {
    act: 'An animal is found',
    before: 3,
    from: 'anywhere',
    at: '/racks',
    most: 2,
    walk: async (hand, { numbers }) => {
      await hand.touch(hand.page.locator('.v-bottom-navigation').getByText('Search'));
      await hand.type(numbers[0]!);
      await hand.touch(hand.page.getByRole('option').first());
      await expect(hand.page.getByRole('heading', { level: 1 })).toContainText(numbers[0]!);
    },
  },
  {
    act: 'A weight is typed',
    before: null,
    from: 'anywhere',
    at: '/racks',
    most: 2,
    walk: async (hand, { numbers }) => {
      await hand.touch(hand.page.locator('.v-bottom-navigation').getByText('Search'));
      await hand.type(`weigh ${numbers[1]!} 1502`);
      await hand.touch(hand.page.getByRole('option').first());
      await said(hand.page, new RegExp(numbers[1]!));
    },
  },
  {
    act: 'An advised move',
    before: 2,
    from: 'Today',
    at: '/today',
    most: 2,
    walk: async (hand) => {
      const line = hand.page.locator('.line.move').filter({ hasText: 'Move up' }).first();
      await hand.touch(line.getByRole('button', { name: 'Move…' }));
      await hand.touch(hand.button('Record'));
      await said(hand.page, /Move recorded/);
    },
  },
  {
    act: 'A sign of illness is seen',
    before: null,
    from: 'an animal’s page',
    at: '/animals/0',
    most: 4,
    walk: async (hand) => {
      await hand.touch(hand.button('Record…'));
      await hand.touch(hand.page.getByText('Health check…'));
      await hand.touch(hand.page.getByRole('dialog').getByText('Wheezes or clicks as it breathes'));
      await hand.touch(hand.button('Record'));
      await said(hand.page, /Health check recorded/);
    },
  },
  {
    act: 'Heat is checked',
    before: 4,
    from: 'Today',
    at: '/today',
    most: 5,
    walk: async (hand) => {
      await hand.touch(row(hand.page, 'heat').getByRole('button', { name: 'Check…' }));
      const dialog = hand.page.getByRole('dialog');
      await hand.touch(dialog.getByLabel(/^Warm side/));
      await hand.type('32.5');
      await hand.touch(dialog.getByLabel(/^Cool side/));
      await hand.type('27.5');
      await hand.touch(dialog.getByRole('button', { name: /^Record/ }));
      await expect(dialog).toHaveCount(0);
    },
  },
  {
    act: 'A clutch of eight is set up, with labels',
    before: 4,
    from: 'Bench',
    at: '/bench',
    most: 6,
    walk: async (hand, { clutchId }) => {
      await hand.touch(hand.page.locator(`a[href="/bench/${clutchId}"]`).first());
      await hand.touch(hand.button('Set up'));
      await hand.touch(hand.button('Move them in'));
      await said(hand.page, /set up/);
      const download = hand.page.waitForEvent('download');
      await hand.touch(hand.button('Make the PDF'));
      await download;
    },
  },
  {
    act: 'An animal is offered',
    before: 2,
    from: 'its page',
    at: '/animals/1',
    most: 3,
    walk: async (hand) => {
      await hand.touch(hand.button('Change status'));
      await hand.touch(hand.page.locator('.v-overlay--active').getByText('Offer for sale'));
      await said(hand.page, /[Oo]ffered/);
    },
  },
  {
    act: 'A male is put to a female',
    before: 4,
    from: 'Season',
    at: '/season',
    most: 4,
    walk: async (hand) => {
      await hand.touch(hand.page.getByRole('button', { name: /: put a male to her$/ }).first());
      await hand.touch(hand.page.getByRole('dialog').getByLabel('Male', { exact: true }));
      await hand.touch(hand.page.locator('.v-overlay-container').getByRole('option').first());
      await hand.touch(hand.page.getByRole('dialog').getByRole('button', { name: /^Introduce/ }));
      await expect(hand.page.getByRole('dialog')).toHaveCount(0);
    },
  },
];
