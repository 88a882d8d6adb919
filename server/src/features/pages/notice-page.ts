import type { StatementLine } from '@karyotome/contract';
import { Reader, type ReaderSettings } from '@karyotome/words';
import { h } from 'vue';
import { statementsSection } from './animal-page.ts';
import { statementCode } from './statement-code.ts';
import { pageFooter, type PageContent } from './document.ts';

/** There is nothing here, or not any more. */
export function noticePage(title: string, text: string, address: string): PageContent {
  return {
    title,
    description: text,
    address,
    isUnlisted: true,
    body: [h('main', [h('h1', title), h('p', text)]), pageFooter()],
  };
}

export interface StatementPage {
  readonly collection: string;
  readonly number: string;
  readonly slug: string;
  readonly statement: number;
  readonly statements: readonly StatementLine[];
  /** The day on which the page was withdrawn; null while it is open. */
  readonly withdrawnOn: string | null;
  readonly origin: string;
  readonly reader: ReaderSettings;
}

/** One statement with the history that it stands in: readable for whoever holds its address, page or no page. */
export function statementPage({
  collection,
  number,
  slug,
  statement,
  statements,
  withdrawnOn,
  origin,
  reader: settings,
}: StatementPage): PageContent {
  const reader = new Reader(settings);
  const newest = statements[0]!.statement;
  const title = `Statement ${statement} of ${number}, ${collection}`;
  const state =
    statement === newest
      ? 'This is the newest statement.'
      : `There is a newer statement, number ${newest}: what changed since is told below.`;
  return {
    title,
    description: `What ${collection} signed of ${number}, and how it changed.`,
    address: `${origin}/p/${slug}/statements/${statement}`,
    isUnlisted: true,
    body: [
      h('header', { class: 'top small' }, [collection]),
      h('main', [
        h('h1', `Statement ${statement} of ${number}`),
        h('p', state),
        withdrawnOn === null
          ? h('p', [h('a', { href: `/p/${slug}` }, `The page of ${number}`)])
          : h(
              'p',
              { class: 'caution' },
              `The page of ${number} was withdrawn on ${reader.day(withdrawnOn)}. What was signed stays readable here.`,
            ),
        statementCode(`${origin}/p/${slug}/statements/${statement}`, statement),
        statementsSection(statements, collection, slug, reader),
      ]),
      pageFooter(),
    ],
  };
}
