import type { SaleRules, StatusEventKind } from '@karyotome/core';
import Joi from 'joi';
import { currency, day, id, massG, noTwo, optional, pastDay, price, text, type Optional } from './fields.ts';

/** So many animals are offered, or decided upon, in one go. */
const MOST_AT_ONCE = 200;

/** A buyer, or somebody who waits for an animal. */
export interface PersonInput {
  name: string;
  email?: Optional<string>;
  phone?: Optional<string>;
  note?: Optional<string>;
  /** The day on which they agreed to be written to; without it nothing is sent. */
  consentOn?: Optional<string>;
}

export const personInput = Joi.object<PersonInput, true>({
  name: text(120).min(1).required(),
  email: optional(Joi.string().email({ tlds: false }).max(200)),
  phone: optional(text(40).allow('')),
  note: optional(text(2000).allow('')),
  consentOn: optional(pastDay()),
});

export const HANDOVERS = ['collected', 'shipped', 'delivered', 'met-halfway'] as const;
export type Handover = (typeof HANDOVERS)[number];

/** What is known of a reservation. */
export interface Reservation {
  personId: string;
  deposit?: Optional<number>;
  currency?: Optional<string>;
  /** The last day on which it holds: then it lapses by itself. */
  until?: Optional<string>;
}

/** What is known of a sale. */
export interface Sale {
  personId?: Optional<string>;
  price?: Optional<number>;
  currency?: Optional<string>;
  paidOn?: Optional<string>;
  handedOverOn?: Optional<string>;
  how?: Optional<Handover>;
}

/** What is given with each kind of event; the others take no more than day and note. */
export interface StatusDetails {
  reserved: Reservation;
  sold: Sale;
}

type Plain = Exclude<StatusEventKind, keyof StatusDetails | 'lapsed'>;
interface Dated {
  on: string;
  note?: Optional<string>;
}
type Happening =
  | (Dated & { kind: Plain })
  | (Dated & { kind: 'reserved'; details: Reservation })
  | (Dated & { kind: 'sold'; details: Sale });

/** Something that happens to the status of several animals at once. */
export type NewStatusEvents = { animalIds: string[] } & Happening;
/** What is put in the place of an animal's last event. */
export type StatusCorrection = Happening;

const PLAIN: readonly Plain[] = [
  'undecided',
  'held-back',
  'offered',
  'gone-back',
  'withdrawn',
  'breeder',
  'died',
  'mistaken',
  'outside',
];

const reservation = Joi.object<Reservation, true>({
  personId: id().required(),
  deposit: optional(price()),
  currency: optional(currency()),
  until: optional(day()),
});
const sale = Joi.object<Sale, true>({
  personId: optional(id()),
  price: optional(price()),
  currency: optional(currency()),
  paidOn: optional(pastDay()),
  handedOverOn: optional(pastDay()),
  how: optional(Joi.string().valid(...HANDOVERS)),
});

const happening = {
  on: pastDay().required(),
  note: optional(text(500).allow('')),
  kind: Joi.string()
    .valid(...PLAIN, 'reserved', 'sold')
    .required(),
  details: Joi.when('kind', {
    switch: [
      { is: 'reserved', then: reservation.required() },
      { is: 'sold', then: sale.required() },
    ],
    otherwise: Joi.forbidden(),
  }),
};

const animalIds = Joi.array().items(id().required()).min(1).max(MOST_AT_ONCE).custom(noTwo()).required();

export const newStatusEvents = Joi.object<NewStatusEvents>({ animalIds, ...happening });
export const statusCorrection = Joi.object<StatusCorrection>(happening);

/** How an ancestor shows on an animal's page. */
export const ANCESTOR_SHOWN = ['named', 'number', 'hidden'] as const;
export type AncestorShown = (typeof ANCESTOR_SHOWN)[number];

/** What buyers are told of an animal. */
export interface OfferInput {
  price?: Optional<number>;
  currency?: Optional<string>;
  /** Words for buyers; private notes never show. */
  text?: Optional<string>;
  /** Pictures that show, in their order; null: all of them. */
  pictureIds?: Optional<string[]>;
  /** Ancestors that show otherwise than by number. */
  ancestors?: Optional<Record<string, AncestorShown>>;
}

const offerFields = {
  price: optional(price()),
  currency: optional(currency()),
  text: optional(text(2000).allow('')),
  pictureIds: optional(Joi.array().items(id()).max(100).custom(noTwo())),
  ancestors: optional(
    Joi.object().pattern(
      id(),
      Joi.string()
        .valid(...ANCESTOR_SHOWN)
        .required(),
    ),
  ),
};
export const offerInput = Joi.object<OfferInput, true>(offerFields);

/** Prices of several animals, typed down a column. */
export interface PricesInput {
  currency: string;
  prices: { animalId: string; price: number | null }[];
}
export const pricesInput = Joi.object<PricesInput, true>({
  currency: currency().required(),
  prices: Joi.array()
    .items(
      Joi.object<PricesInput['prices'][number], true>({
        animalId: id().required(),
        price: price().allow(null).required(),
      }).required(),
    )
    .min(1)
    .max(MOST_AT_ONCE)
    .custom(noTwo('animalId'))
    .required(),
});

export const saleRules = Joi.object<SaleRules, true>({
  currency: currency().required(),
  mealsInRow: Joi.number().integer().min(0).max(50).required(),
  massG: massG().required(),
  wholeShed: Joi.boolean().required(),
});

/** What a visitor of a public page asks. */
export interface InquiryInput {
  name: string;
  email: string;
  text: string;
}
export const inquiryInput = Joi.object<InquiryInput, true>({
  name: text(120).min(1).required(),
  email: Joi.string().email({ tlds: false }).max(200).required(),
  text: text(4000).min(1).required(),
});
