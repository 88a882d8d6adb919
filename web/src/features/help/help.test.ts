import places from '../../../../docs/guide/places.md?raw';
import { TRADE_WORDS, type TradeWord } from '@karyotome/words';
import { expect, test } from 'vitest';
import { router } from '../../router/router.ts';
import { guideText } from './guide.ts';
import { helpAt, HELP_PAGES } from './help-pages.ts';

test('every place of whoever is signed in has its page', () => {
  const places = router.getRoutes().filter(({ meta, path: at }) => meta.title && !meta.open && at !== '/');
  expect(places.length).toBeGreaterThan(30);
  for (const { path: at } of places) expect(helpAt(at.replaceAll(/:\w+/g, 'one')), at).not.toBe(null);
});

test('each page is the help of some place', () => {
  const places = router.getRoutes().map(({ path: at }) => at.replaceAll(/:\w+/g, 'one'));
  const shown = new Set(places.map(helpAt));
  expect(HELP_PAGES.filter((page) => !shown.has(page))).toEqual([]);
});

test('every word of the trade is explained somewhere', () => {
  const shown = new Set(HELP_PAGES.flatMap(({ words = [] }) => words));
  const all = Object.keys(TRADE_WORDS) as TradeWord[];
  expect(all.filter((word) => !shown.has(word))).toEqual([]);
});

test('the guide has them as they are: npm run guide', () => {
  expect(places).toBe(`${guideText().trimEnd()}
`);
});
