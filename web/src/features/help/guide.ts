import { TRADE_WORDS, type TradeWord } from '@karyotome/words';
import type { HelpPage } from './help-page.ts';
import { HELP_PAGES } from './help-pages.ts';

const section = ({ title, purpose, keys = [], hints }: HelpPage): string =>
  [
    `## ${title}`,
    purpose,
    hints.map((hint) => `- ${hint}`).join('\n'),
    ...(keys.length > 0
      ? [
          [
            '| keys | what they do |',
            '| --- | --- |',
            ...keys.map(([key, act]) => `| ${key} | ${act} |`),
          ].join('\n'),
        ]
      : []),
  ].join('\n\n');

/** The help of every place as one document: `docs/guide/places.md`. */
export const guideText = (): string =>
  [
    '# Every place',
    'Made by `npm run guide` from the pages that the application shows behind `?`.',
    '| keys everywhere | what they do |\n| --- | --- |\n| 1 to 8 | the places, in the order of the bar |\n| /, Ctrl+K | search, and enter by typing |\n| ? | help for the place that one is in |',
    ...HELP_PAGES.map(section),
    '## Words of the trade',
    (Object.keys(TRADE_WORDS) as TradeWord[]).map((word) => `- **${word}**: ${TRADE_WORDS[word]}`).join('\n'),
    '',
  ].join('\n\n');
