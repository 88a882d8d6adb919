import { DataTypes, type Sequelize } from 'sequelize';
import type { LetterRow, SimulatedMailRow } from './post-rows.ts';
import { key, table } from './table.ts';

const { UUID, TEXT, INTEGER, DATE, JSONB } = DataTypes;

export const postModels = (sequelize: Sequelize) => ({
  letters: table<LetterRow>(sequelize, 'letters', {
    collectionId: UUID,
    id: key(),
    kind: TEXT,
    sentKey: TEXT,
    personId: UUID,
    animalId: UUID,
    toAddress: TEXT,
    subject: TEXT,
    paragraphs: JSONB,
    state: TEXT,
    attempts: INTEGER,
    nextTryAt: DATE,
    stateAt: DATE,
    error: TEXT,
    createdAt: DATE,
  }),
  simulatedMail: table<SimulatedMailRow>(sequelize, 'simulated_mail', {
    id: key(),
    collectionId: UUID,
    letterId: UUID,
    message: TEXT,
    receivedAt: DATE,
  }),
});
