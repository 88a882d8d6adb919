import type { WishAnswer } from '@karyotome/contract';

export interface WishRow {
  collectionId: string;
  id: string;
  personId: string;
  must: string;
  mustNot: string | null;
  sex: 'female' | 'male' | null;
  priceLimit: number | null;
  currency: string | null;
  pairingId: string | null;
  joinedOn: string;
  note: string | null;
  closedOn: string | null;
  version: number;
  createdAt: Date;
}

export interface WishOfferRow {
  collectionId: string;
  id: string;
  wishId: string;
  animalId: string;
  offeredOn: string;
  answerUntil: string;
  answer: WishAnswer | null;
  answeredOn: string | null;
  createdAt: Date;
}
