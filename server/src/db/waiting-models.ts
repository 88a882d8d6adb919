import { DataTypes, type Sequelize } from 'sequelize';
import { key, table } from './table.ts';
import type { WishOfferRow, WishRow } from './waiting-rows.ts';

const { UUID, TEXT, INTEGER, DOUBLE, DATEONLY, DATE } = DataTypes;

export const waitingModels = (sequelize: Sequelize) => ({
  wishes: table<WishRow>(sequelize, 'wishes', {
    collectionId: UUID,
    id: key(),
    personId: UUID,
    must: TEXT,
    mustNot: TEXT,
    sex: TEXT,
    priceLimit: DOUBLE,
    currency: TEXT,
    pairingId: UUID,
    joinedOn: DATEONLY,
    note: TEXT,
    closedOn: DATEONLY,
    version: INTEGER,
    createdAt: DATE,
  }),
  wishOffers: table<WishOfferRow>(sequelize, 'wish_offers', {
    collectionId: UUID,
    id: key(),
    wishId: UUID,
    animalId: UUID,
    offeredOn: DATEONLY,
    answerUntil: DATEONLY,
    answer: TEXT,
    answeredOn: DATEONLY,
    createdAt: DATE,
  }),
});
