import { hasAllWords, type Sex } from '@karyotome/contract';
import { daysBetween } from '@karyotome/core';
import { Reader, STATUS_WORDS, type ReaderSettings } from '@karyotome/words';
import { h, type VNode } from 'vue';
import { pageFooter, type PageContent } from './document.ts';
import type { OfferedAnimal } from './offered.ts';
import { pictureSet } from './picture-set.ts';
import { SEX_SIGN } from './animal-page.ts';

/** What visitors look for. */
export interface FrontFilter {
  readonly gene: string;
  readonly sex: Sex | '';
  /** At most. */
  readonly price: number | null;
  /** Months, at least and at most. */
  readonly from: number | null;
  readonly to: number | null;
  readonly isReady: boolean;
  /** From 1. */
  readonly page: number;
}

const PER_PAGE = 24;
const DAYS_OF_MONTH = 30.44;

/** Those that a filter leaves, of all that are offered. */
export function filtered(
  offered: readonly OfferedAnimal[],
  { gene, sex, price, from, to, isReady }: FrontFilter,
  today: string,
): OfferedAnimal[] {
  return offered.filter((animal) => {
    const months = animal.hatchedOn === null ? null : daysBetween(animal.hatchedOn, today) / DAYS_OF_MONTH;
    return (
      hasAllWords(animal.label, gene) &&
      (sex === '' || animal.sex === sex) &&
      (price === null || (animal.price !== null && animal.price <= price)) &&
      (from === null || (months !== null && months >= from)) &&
      (to === null || (months !== null && months <= to)) &&
      (!isReady || animal.isReady)
    );
  });
}

export interface FrontPage {
  readonly collection: string;
  readonly pageName: string;
  readonly units: Omit<ReaderSettings, 'locale'>;
  readonly offered: readonly OfferedAnimal[];
  readonly filter: FrontFilter;
  readonly today: string;
  readonly origin: string;
  readonly locale: string;
}

export function frontPage({
  collection,
  pageName,
  units,
  offered,
  filter,
  today,
  origin,
  locale,
}: FrontPage): PageContent {
  const reader = new Reader({ locale, ...units });
  const address = `${origin}/c/${pageName}`;
  const found = filtered(offered, filter, today);
  const pages = Math.max(1, Math.ceil(found.length / PER_PAGE));
  const page = Math.min(filter.page, pages);
  const shown = found.slice((page - 1) * PER_PAGE, page * PER_PAGE);
  const first = offered.find(({ picture }) => picture !== null);
  const count = reader.count(found.length, 'animal', 'animals');
  return {
    title: `${collection}: ball pythons`,
    description: `${reader.count(offered.length, 'ball python', 'ball pythons')} of ${collection}, each with signed genetic claims and what they rest on.`,
    address,
    image: first?.picture ? `${origin}/p/${first.slug}/pictures/${first.picture.id}/960` : null,
    feed: `${address}/feed.json`,
    body: [
      h('header', { class: 'top' }, [h('h1', collection)]),
      h('main', [
        filterForm(pageName, filter),
        h(
          'p',
          { role: 'status' },
          found.length === offered.length ? count : `${count} of ${reader.number(offered.length)}`,
        ),
        h(
          'div',
          { class: 'grid' },
          shown.map((animal, i) => card(animal, reader, i > 3)),
        ),
        pager(pageName, filter, page, pages),
        h('p', { class: 'no-print apart' }, [
          h('a', { href: `/c/${pageName}/inquiry` }, `Ask ${collection}`),
          ' · ',
          h('a', { href: `/c/${pageName}/feed.json` }, 'Feed'),
        ]),
      ]),
      pageFooter(),
    ],
  };
}

function card(animal: OfferedAnimal, reader: Reader, isBelow: boolean): VNode {
  const { slug, number, name, sex, label, price, currency, status, picture, isReady } = animal;
  return h('article', { class: 'offer' }, [
    h('a', { href: `/p/${slug}` }, [
      picture
        ? pictureSet(slug, picture, `Picture of ${number}`, '(min-width: 600px) 300px, 100vw', isBelow)
        : null,
      h('div', [
        h('h2', `${number} ${SEX_SIGN[sex]} ${name ?? ''}`.trim()),
        h('p', [h('strong', label)]),
        h('p', [
          price === null || status === 'sold' ? '' : `${reader.money(price, currency)} `,
          h('span', { class: 'mark' }, STATUS_WORDS[status]),
          isReady && status === 'for-sale' ? h('span', { class: 'small soft' }, ' ready to leave') : null,
        ]),
      ]),
    ]),
  ]);
}

function filterForm(pageName: string, { gene, sex, price, from, to, isReady }: FrontFilter): VNode {
  const option = (value: Sex | '', text: string): VNode =>
    h('option', { value, ...(sex === value ? { selected: true } : {}) }, text);
  const months = (name: string, text: string, value: number | null): VNode =>
    h('label', { class: 'months' }, [
      text,
      h('input', { type: 'number', name, min: 0, max: 600, value: value ?? '' }),
    ]);
  return h('form', { class: 'filter', action: `/c/${pageName}`, method: 'get', role: 'search' }, [
    h('label', { class: 'genes' }, ['Genes', h('input', { name: 'gene', maxlength: 100, value: gene })]),
    h('label', { class: 'sex' }, [
      'Sex',
      h('select', { name: 'sex' }, [option('', 'Any'), option('female', 'Female'), option('male', 'Male')]),
    ]),
    h('label', { class: 'amount' }, [
      'Price up to',
      h('input', { type: 'number', name: 'price', min: 0, value: price ?? '' }),
    ]),
    months('from', 'Months from', from),
    months('to', 'to', to),
    h('label', { class: 'check' }, [
      h('input', { type: 'checkbox', name: 'ready', value: '1', ...(isReady ? { checked: true } : {}) }),
      'Ready to leave',
    ]),
    h('button', { type: 'submit' }, 'Show'),
  ]);
}

function pager(pageName: string, filter: FrontFilter, page: number, pages: number): VNode | null {
  if (pages === 1) return null;
  const to = (number: number): string => {
    const query = new URLSearchParams();
    if (filter.gene) query.set('gene', filter.gene);
    if (filter.sex) query.set('sex', filter.sex);
    if (filter.price !== null) query.set('price', String(filter.price));
    if (filter.from !== null) query.set('from', String(filter.from));
    if (filter.to !== null) query.set('to', String(filter.to));
    if (filter.isReady) query.set('ready', '1');
    query.set('page', String(number));
    return `/c/${pageName}?${query.toString()}`;
  };
  return h('nav', { 'aria-label': 'Pages', class: 'apart' }, [
    page > 1 ? h('a', { href: to(page - 1), rel: 'prev' }, 'Back') : null,
    ` Page ${page} of ${pages} `,
    page < pages ? h('a', { href: to(page + 1), rel: 'next' }, 'Next') : null,
  ]);
}
