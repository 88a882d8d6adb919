import { DataTypes, type Sequelize } from 'sequelize';
import type {
  BreederRow,
  HandOverRow,
  InquiryRow,
  OfferRow,
  PersonRow,
  StatedEvidenceRow,
  StatusEventRow,
  TakenStatementRow,
} from './sale-rows.ts';
import { key, table, voidable } from './table.ts';

const { UUID, TEXT, INTEGER, DOUBLE, DATEONLY, DATE, JSONB } = DataTypes;

/** Persons, what happens to animals' status, and what buyers are told. */
export const saleModels = (sequelize: Sequelize) => ({
  persons: table<PersonRow>(sequelize, 'persons', {
    collectionId: UUID,
    id: key(),
    name: TEXT,
    email: TEXT,
    phone: TEXT,
    note: TEXT,
    consentOn: DATEONLY,
    erasedAt: DATE,
    version: INTEGER,
    createdAt: DATE,
  }),
  statusEvents: table<StatusEventRow>(sequelize, 'status_events', {
    collectionId: UUID,
    id: key(),
    animalId: UUID,
    kind: TEXT,
    before: TEXT,
    details: JSONB,
    personId: UUID,
    ...voidable(),
  }),
  inquiries: table<InquiryRow>(sequelize, 'inquiries', {
    collectionId: UUID,
    id: key(),
    animalId: UUID,
    name: TEXT,
    email: TEXT,
    text: TEXT,
    askedAt: DATE,
    answeredAt: DATE,
    version: INTEGER,
  }),
  offers: table<OfferRow>(sequelize, 'offers', {
    collectionId: UUID,
    id: key(),
    animalId: UUID,
    price: DOUBLE,
    currency: TEXT,
    text: TEXT,
    pictureIds: JSONB,
    ancestors: JSONB,
    version: INTEGER,
  }),
});

/** What was taken in of other breeders, and what is handed over to them. */
export const takenModels = (sequelize: Sequelize) => ({
  breeders: table<BreederRow>(sequelize, 'breeders', {
    collectionId: UUID,
    id: key(),
    did: TEXT,
    name: TEXT,
    trust: TEXT,
    version: INTEGER,
  }),
  takenStatements: table<TakenStatementRow>(sequelize, 'taken_statements', {
    collectionId: UUID,
    id: key(),
    breederId: UUID,
    statementId: TEXT,
    animalId: UUID,
    statement: INTEGER,
    asOf: DATEONLY,
    document: TEXT,
    authorId: UUID,
    takenAt: DATE,
    removedAt: DATE,
  }),
  statedEvidence: table<StatedEvidenceRow>(sequelize, 'stated_evidence', {
    collectionId: UUID,
    id: key(),
    takenId: UUID,
    animalId: UUID,
    body: JSONB,
  }),
  handOvers: table<HandOverRow>(sequelize, 'hand_overs', {
    collectionId: UUID,
    id: key(),
    animalId: UUID,
    tokenDigest: TEXT,
    authorId: UUID,
    madeAt: DATE,
    expiresOn: DATEONLY,
    openedAt: DATE,
  }),
});
