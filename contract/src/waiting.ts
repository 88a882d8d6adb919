import Joi from 'joi';
import { currency, day, id, optional, pastDay, price, text, type Optional } from './fields.ts';

/** What somebody waits for: genes in shorthand. */
export interface WishInput {
  personId: string;
  must: string;
  mustNot?: Optional<string>;
  sex?: Optional<'female' | 'male'>;
  priceLimit?: Optional<number>;
  currency?: Optional<string>;
  /** Only from this pairing. */
  pairingId?: Optional<string>;
  joinedOn: string;
  note?: Optional<string>;
}
export const wishInput = Joi.object<WishInput, true>({
  personId: id().required(),
  must: text(300).min(1).required(),
  mustNot: optional(text(300).allow('')),
  sex: optional(Joi.string().valid('female', 'male')),
  priceLimit: optional(price()),
  currency: optional(currency()),
  pairingId: optional(id()),
  joinedOn: pastDay().required(),
  note: optional(text(500).allow('')),
});

/** An animal is offered to the first whom it fits. */
export interface WaitingOffer {
  animalId: string;
  /** The last day for an answer. */
  until: string;
}
export const waitingOffer = Joi.object<WaitingOffer, true>({
  animalId: id().required(),
  until: day().required(),
});

export const WISH_ANSWERS = ['accepted', 'declined', 'lapsed'] as const;
export type WishAnswer = (typeof WISH_ANSWERS)[number];
export interface WishAnswerInput {
  answer: Exclude<WishAnswer, 'lapsed'>;
}
export const wishAnswer = Joi.object<WishAnswerInput, true>({
  answer: Joi.string().valid('accepted', 'declined').required(),
});

export interface WishView {
  id: string;
  person: { id: string; name: string | null; hasAgreed: boolean };
  must: string;
  mustNot: string | null;
  sex: 'female' | 'male' | null;
  priceLimit: number | null;
  currency: string | null;
  pairing: { id: string; name: string } | null;
  joinedOn: string;
  note: string | null;
  /** Animals here that fit, the likeliest first. */
  fits: { animalId: string; number: string; p: number }[];
  offers: { id: string; animalId: string; number: string; until: string; answer: WishAnswer | null }[];
  version: number;
}

/** What a pairing may give to those who wait. */
export interface PairingWaitView {
  id: string;
  season: number;
  name: string;
  /** Young that are expected of it. */
  young: number;
  /** For how many of those who wait at least one of them fits, on average; and how many wait for what it can give. */
  expected: number;
  waiting: number;
}

/** Who waits for an animal. */
export interface AnimalWaitView {
  animalId: string;
  count: number;
  first: { wishId: string; name: string; p: number } | null;
}
