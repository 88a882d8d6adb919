import { DataTypes, Sequelize, type Model, type ModelAttributes, type ModelStatic } from 'sequelize';
import type { CatalogueEntryInput, CollectionSettings, RecordKind, Sex, Status } from '@karyotome/contract';

/* Table shapes only: rules live in services, constraints in migrations. */

export interface AccountRow {
  id: string;
  email: string;
  name: string;
  passwordHash: string;
}
export interface CollectionRow extends Omit<CollectionSettings, 'ladderId'> {
  id: string;
  ladderId: string | null;
  geneticsRevision: string;
  version: number;
}
export interface CatalogueEntryRow {
  collectionId: string;
  id: string;
  kind: CatalogueEntryInput['kind'];
  key: string;
  body: CatalogueEntryInput;
  authorId: string;
  version: number;
}
export interface MembershipRow {
  collectionId: string;
  accountId: string;
  role: 'owner' | 'keeper' | 'viewer';
}
export interface IdempotentWriteRow {
  collectionId: string;
  key: string;
  fingerprint: string;
  status: number | null;
  body: unknown;
  createdAt: Date;
}
export interface LadderRow {
  collectionId: string;
  id: string;
  name: string;
  version: number;
}
export interface LadderStepRow {
  collectionId: string;
  ladderId: string;
  position: number;
  name: string;
  minG: number;
  maxG: number | null;
  inside: string;
  mealsBefore: number | null;
}
export interface RackRow {
  collectionId: string;
  id: string;
  room: string;
  name: string;
  levels: number;
  tubsPerLevel: number;
  ladderId: string;
  stepPosition: number;
  version: number;
}
export interface TubRow {
  collectionId: string;
  id: string;
  rackId: string;
  level: number;
  slot: number;
}
export interface AnimalRow {
  collectionId: string;
  id: string;
  number: string;
  name: string | null;
  sex: Sex;
  hatchedOn: string | null;
  damId: string | null;
  sireId: string | null;
  clutchId: string | null;
  tubId: string | null;
  status: Status;
  note: string | null;
  version: number;
}
export interface PairingRow {
  collectionId: string;
  id: string;
  season: number;
  damId: string;
  startedOn: string;
  note: string | null;
  version: number;
}
export interface PairingSireRow {
  collectionId: string;
  pairingId: string;
  sireId: string;
  weight: number;
}
export interface ClutchRow {
  collectionId: string;
  id: string;
  pairingId: string;
  season: number;
  ordinal: number;
  laidOn: string;
  eggs: number;
  slugs: number | null;
  incubationC: number | null;
  hatchedOn: string | null;
  hatched: number | null;
  note: string | null;
  version: number;
}
export interface RecordRow {
  collectionId: string;
  id: string;
  animalId: string;
  kind: RecordKind;
  onDay: string;
  body: Record<string, unknown>;
  note: string | null;
  authorId: string;
  recordedAt: Date;
  voidedAt: Date | null;
  voidedBy: string | null;
  voidReason: string | null;
  replacedBy: string | null;
}
export interface PictureRow {
  collectionId: string;
  id: string;
  animalId: string;
  caption: string;
  isDrawing: boolean;
  takenOn: string | null;
  width: number;
  height: number;
  file: string;
  authorId: string;
}
export interface PublicationRow {
  collectionId: string;
  id: string;
  animalId: string;
  slug: string;
  text: string | null;
  publishedAt: Date;
  withdrawnAt: Date | null;
  authorId: string;
}
export interface UsedNumberRow {
  collectionId: string;
  number: string;
}

const { UUID, TEXT, INTEGER, DOUBLE, DATEONLY, DATE, JSONB, BOOLEAN, BIGINT } = DataTypes;
// A new object each time: Sequelize writes the column's name into the one it is given.
const key = () => ({ type: UUID, primaryKey: true });

function table<Row extends object>(
  sequelize: Sequelize,
  name: string,
  columns: Record<keyof Row, unknown>,
): ModelStatic<Model<Row, Partial<Row>>> {
  return sequelize.define<Model<Row, Partial<Row>>>(
    name,
    columns as ModelAttributes<Model<Row, Partial<Row>>>,
  );
}

/** Every table of the schema, on one connection pool. */
export function createModels(sequelize: Sequelize) {
  return {
    accounts: table<AccountRow>(sequelize, 'accounts', {
      id: key(),
      email: TEXT,
      name: TEXT,
      passwordHash: TEXT,
    }),
    collections: table<CollectionRow>(sequelize, 'collections', {
      id: key(),
      name: TEXT,
      numberPattern: TEXT,
      massUnit: TEXT,
      temperatureUnit: TEXT,
      ladderId: UUID,
      geneticsRevision: BIGINT,
      version: INTEGER,
    }),
    memberships: table<MembershipRow>(sequelize, 'memberships', {
      collectionId: key(),
      accountId: key(),
      role: TEXT,
    }),
    idempotentWrites: table<IdempotentWriteRow>(sequelize, 'idempotent_writes', {
      collectionId: key(),
      key: { type: TEXT, primaryKey: true },
      fingerprint: TEXT,
      status: INTEGER,
      body: JSONB,
      createdAt: DATE,
    }),
    ladders: table<LadderRow>(sequelize, 'ladders', {
      collectionId: UUID,
      id: key(),
      name: TEXT,
      version: INTEGER,
    }),
    ladderSteps: table<LadderStepRow>(sequelize, 'ladder_steps', {
      collectionId: key(),
      ladderId: key(),
      position: { type: INTEGER, primaryKey: true },
      name: TEXT,
      minG: DOUBLE,
      maxG: DOUBLE,
      inside: TEXT,
      mealsBefore: INTEGER,
    }),
    racks: table<RackRow>(sequelize, 'racks', {
      collectionId: UUID,
      id: key(),
      room: TEXT,
      name: TEXT,
      levels: INTEGER,
      tubsPerLevel: INTEGER,
      ladderId: UUID,
      stepPosition: INTEGER,
      version: INTEGER,
    }),
    tubs: table<TubRow>(sequelize, 'tubs', {
      collectionId: UUID,
      id: key(),
      rackId: UUID,
      level: INTEGER,
      slot: INTEGER,
    }),
    catalogueEntries: table<CatalogueEntryRow>(sequelize, 'catalogue_entries', {
      collectionId: UUID,
      id: key(),
      kind: TEXT,
      key: TEXT,
      body: JSONB,
      authorId: UUID,
      version: INTEGER,
    }),
    usedNumbers: table<UsedNumberRow>(sequelize, 'used_numbers', {
      collectionId: key(),
      number: { type: TEXT, primaryKey: true },
    }),
    animals: table<AnimalRow>(sequelize, 'animals', {
      collectionId: UUID,
      id: key(),
      number: TEXT,
      name: TEXT,
      sex: TEXT,
      hatchedOn: DATEONLY,
      damId: UUID,
      sireId: UUID,
      clutchId: UUID,
      tubId: UUID,
      status: TEXT,
      note: TEXT,
      version: INTEGER,
    }),
    pairings: table<PairingRow>(sequelize, 'pairings', {
      collectionId: UUID,
      id: key(),
      season: INTEGER,
      damId: UUID,
      startedOn: DATEONLY,
      note: TEXT,
      version: INTEGER,
    }),
    pairingSires: table<PairingSireRow>(sequelize, 'pairing_sires', {
      collectionId: key(),
      pairingId: key(),
      sireId: key(),
      weight: DOUBLE,
    }),
    clutches: table<ClutchRow>(sequelize, 'clutches', {
      collectionId: UUID,
      id: key(),
      pairingId: UUID,
      season: INTEGER,
      ordinal: INTEGER,
      laidOn: DATEONLY,
      eggs: INTEGER,
      slugs: INTEGER,
      incubationC: DOUBLE,
      hatchedOn: DATEONLY,
      hatched: INTEGER,
      note: TEXT,
      version: INTEGER,
    }),
    records: table<RecordRow>(sequelize, 'records', {
      collectionId: UUID,
      id: key(),
      animalId: UUID,
      kind: TEXT,
      onDay: DATEONLY,
      body: JSONB,
      note: TEXT,
      authorId: UUID,
      recordedAt: DATE,
      voidedAt: DATE,
      voidedBy: UUID,
      voidReason: TEXT,
      replacedBy: UUID,
    }),
    pictures: table<PictureRow>(sequelize, 'pictures', {
      collectionId: UUID,
      id: key(),
      animalId: UUID,
      caption: TEXT,
      isDrawing: BOOLEAN,
      takenOn: DATEONLY,
      width: INTEGER,
      height: INTEGER,
      file: TEXT,
      authorId: UUID,
    }),
    publications: table<PublicationRow>(sequelize, 'publications', {
      collectionId: UUID,
      id: key(),
      animalId: UUID,
      slug: TEXT,
      text: TEXT,
      publishedAt: DATE,
      withdrawnAt: DATE,
      authorId: UUID,
    }),
  };
}
export type Models = ReturnType<typeof createModels>;
