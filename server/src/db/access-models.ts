import { DataTypes, type Sequelize } from 'sequelize';
import type {
  AccessTokenRow,
  InvitationRow,
  PasskeyRow,
  SecondFactorRow,
  SessionRow,
} from './access-rows.ts';
import { key, table } from './table.ts';

const { UUID, TEXT, DATE, BIGINT } = DataTypes;

/** What lets people in. */
export const accessModels = (sequelize: Sequelize) => ({
  invitations: table<InvitationRow>(sequelize, 'invitations', {
    collectionId: key(),
    id: key(),
    name: TEXT,
    role: TEXT,
    grants: DataTypes.ARRAY(TEXT),
    authorId: UUID,
    expiresAt: DATE,
    takenBy: UUID,
    takenAt: DATE,
    withdrawnAt: DATE,
  }),
  accessTokens: table<AccessTokenRow>(sequelize, 'access_tokens', {
    collectionId: key(),
    id: key(),
    accountId: UUID,
    name: TEXT,
    scope: TEXT,
    expiresAt: DATE,
    usedAt: DATE,
    revokedAt: DATE,
  }),
  secondFactors: table<SecondFactorRow>(sequelize, 'second_factors', {
    accountId: { type: UUID, primaryKey: true },
    sealedSecret: TEXT,
    confirmedAt: DATE,
    lastStep: BIGINT,
    recoverySet: UUID,
    usedCodes: DataTypes.ARRAY(DataTypes.SMALLINT),
  }),
  passkeys: table<PasskeyRow>(sequelize, 'passkeys', {
    id: key(),
    credentialId: TEXT,
    accountId: UUID,
    name: TEXT,
    publicKey: DataTypes.BLOB,
    counter: BIGINT,
    transports: DataTypes.ARRAY(TEXT),
    usedAt: DATE,
  }),
  sessions: table<SessionRow>(sequelize, 'sessions', { sid: { type: TEXT, primaryKey: true } }),
});
