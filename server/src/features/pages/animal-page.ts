import type { PublicAnimal, StatementLine } from '@karyotome/contract';
import { daysBetween } from '@karyotome/core';
import { BUYER_CAUTIONS, Reader, SEXING_WORDS, STATE_WORDS, STATUS_WORDS } from '@karyotome/words';
import { fingerprintWords } from '@karyotome/lineage';
import { h, type VNode } from 'vue';
import { claimsSection, kinSection } from './claims-section.ts';
import { pageFooter, type PageContent } from './document.ts';
import { lifeline } from './lifeline.ts';
import { pictureSet } from './picture-set.ts';
import { statementCode } from './statement-code.ts';
import { productData } from './structured-data.ts';

const MEALS_SHOWN = 40;
export const SEX_SIGN = { female: '♀', male: '♂', unknown: '' } as const;

export interface AnimalPage {
  readonly animal: PublicAnimal;
  readonly slug: string;
  /** Of the collection's front page. */
  readonly pageName: string;
  /** Where this server is found: scheme, host and port. */
  readonly origin: string;
  readonly locale: string;
}

export function animalPage({ animal, slug, pageName, origin, locale }: AnimalPage): PageContent {
  const reader = new Reader({ locale, ...animal.units });
  const address = `${origin}/p/${slug}`;
  const [first] = animal.pictures;
  // A page opens with its first statement.
  const newest = animal.statements[0]!;
  const title = `${animal.number} ${animal.label}, ${animal.collection}`;
  const image = first ? `${address}/pictures/${first.id}/960` : null;
  return {
    title,
    description: describe(animal, reader),
    address,
    image,
    data: productData(animal, address, image),
    body: [
      h('header', { class: 'top small' }, [h('a', { href: `/c/${pageName}` }, animal.collection)]),
      h('main', [
        h('h1', `${animal.number} ${SEX_SIGN[animal.sex]} ${animal.name ?? ''}`.trim()),
        h('p', { class: 'label' }, animal.label),
        priceLine(animal, reader),
        pictures(animal, slug),
        animal.text ? h('p', { class: 'lines' }, animal.text) : null,
        h('section', [h('h2', 'The animal'), facts(animal, reader)]),
        claimsSection(animal, reader),
        kinSection(animal),
        lifelineSection(animal, reader),
        meals(animal, reader),
        statementsSection(animal.statements, animal.collection, slug, reader),
        h('div', { class: 'print-only' }, [
          statementCode(`${address}/statements/${newest.statement}`, newest.statement),
        ]),
        h('section', [
          h('h2', 'Please note'),
          h(
            'ul',
            { class: 'small' },
            BUYER_CAUTIONS.map((caution) => h('li', caution)),
          ),
        ]),
        h('p', { class: 'no-print' }, [
          h(
            'a',
            { href: `/c/${pageName}/inquiry?animal=${slug}` },
            `Ask ${animal.collection} about ${animal.number}`,
          ),
          ' · ',
          h('a', { href: `/api/v1/public/${slug}?download=1` }, 'Download the records as JSON'),
        ]),
      ]),
      pageFooter(),
    ],
  };
}

function describe(animal: PublicAnimal, reader: Reader): string {
  const price = animal.price === null ? '' : `, ${reader.money(animal.price, animal.currency)}`;
  const sex = animal.sex === 'unknown' ? '' : `${animal.sex} `;
  return `Ball python, ${sex}${animal.label}${price}. ${animal.claims.length} signed claims of ${animal.collection}, each with what it rests on.`;
}

const priceLine = ({ status, price, currency }: PublicAnimal, reader: Reader): VNode | null => {
  const isOffered = status === 'for-sale' || status === 'reserved' || status === 'sold';
  if (!isOffered && price === null) return null;
  return h('p', { class: 'price' }, [
    price !== null && status !== 'sold' ? `${reader.money(price, currency)} ` : '',
    isOffered ? h('span', { class: 'mark' }, STATUS_WORDS[status]) : null,
  ]);
};

function pictures({ pictures: all, number }: PublicAnimal, slug: string): VNode | null {
  if (all.length === 0) return null;
  return h(
    'div',
    { class: 'pictures' },
    all.map((picture, i) =>
      h('figure', [
        pictureSet(
          slug,
          picture,
          picture.caption || `Picture of ${number}`,
          '(min-width: 760px) 460px, 100vw',
          i > 0,
        ),
        h('figcaption', { class: 'small soft' }, `${picture.isDrawing ? 'Drawing. ' : ''}${picture.caption}`),
      ]),
    ),
  );
}

function facts(animal: PublicAnimal, reader: Reader): VNode {
  const { sexing, hatchedOn, weights, feedings, sheds } = animal;
  const [weight, shed] = [weights.at(-1), sheds.at(-1)];
  const line = (term: string, value: string): VNode => h('div', [h('dt', term), h('dd', value)]);
  const sex = animal.sex === 'unknown' ? 'not sexed' : animal.sex;
  return h('dl', [
    line('Sex', sexing ? `${sex}, ${SEXING_WORDS[sexing.method]}, ${sexing.sure}` : sex),
    line(
      'Hatched',
      hatchedOn
        ? `${reader.day(hatchedOn)}, ${reader.age(daysBetween(hatchedOn, animal.asOf))} old when this was signed`
        : 'not recorded',
    ),
    line('Weight', weight ? `${reader.mass(weight.massG)} on ${reader.day(weight.on)}` : 'not recorded'),
    line(
      'Meals',
      `${reader.number(feedings.filter(({ taken }) => taken).length)} of ${reader.number(feedings.length)} taken`,
    ),
    line(
      'Sheds',
      shed
        ? `${reader.number(sheds.length)}, last ${shed.complete === false ? 'in pieces' : 'whole'} on ${reader.day(shed.on)}`
        : 'none recorded',
    ),
  ]);
}

function lifelineSection(animal: PublicAnimal, reader: Reader): VNode | null {
  const drawn = lifeline(animal, reader);
  return (
    drawn &&
    h('section', [
      h('h2', 'Lifeline'),
      drawn,
      h(
        'p',
        { class: 'small soft' },
        'Line: weight. Tall marks: meals taken; short ones: refused. Dots: sheds.',
      ),
    ])
  );
}

function meals({ feedings }: PublicAnimal, reader: Reader): VNode | null {
  if (feedings.length === 0) return null;
  return h('section', [
    h('h2', 'Feeding record'),
    h(
      'ul',
      { class: 'plain small columns' },
      feedings
        .toReversed()
        .slice(0, MEALS_SHOWN)
        .map(({ on, species, size, state, taken }) =>
          h(
            'li',
            `${reader.day(on)} ${species} ${size}, ${STATE_WORDS[state]}: ${taken ? 'taken' : 'refused'}`,
          ),
        ),
    ),
    feedings.length > MEALS_SHOWN
      ? h(
          'p',
          { class: 'small soft' },
          `The ${MEALS_SHOWN} latest of ${reader.number(feedings.length)}; all are in the download.`,
        )
      : null,
  ]);
}

/** The history of what was claimed, the newest first. */
export function statementsSection(
  statements: readonly StatementLine[],
  collection: string,
  slug: string,
  reader: Reader,
): VNode {
  const keys = [...new Set(statements.map(({ key }) => key))];
  return h('section', [
    h('h2', 'Signed statements'),
    h('p', { class: 'small soft' }, [
      'Each holds what is claimed and the records that it follows from, signed by the breeder. Anybody can ',
      h('a', { href: '/verify' }, 'verify'),
      ' it, offline too.',
    ]),
    h(
      'ol',
      { class: 'plain' },
      statements.map(({ statement, asOf, changes }) =>
        h('li', { class: 'claim' }, [
          h('div', { class: 'head' }, [
            h(
              'a',
              { href: `/p/${slug}/statements/${statement}` },
              `Statement ${statement}, ${reader.day(asOf)}`,
            ),
            h('a', { href: `/api/v1/public/${slug}/statements/${statement}`, download: '' }, 'Download'),
          ]),
          ...changes.map(({ from, to, because }) =>
            h('p', { class: 'small soft' }, `${from} became ${to}. ${because}`),
          ),
        ]),
      ),
    ),
    ...keys.map((key) =>
      h('p', { class: 'small soft key' }, [
        `Signed by ${collection} with the key ${key}`,
        h('br'),
        'Its fingerprint, to be compared by word of mouth: ',
        h('strong', (fingerprintWords(key) ?? []).join(' ')),
      ]),
    ),
  ]);
}
