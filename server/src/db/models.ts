import { DataTypes, type Sequelize } from 'sequelize';
import { accessModels } from './access-models.ts';
import { benchModels, eggModels, seasonModels } from './breeding-models.ts';
import { projectModels } from './project-models.ts';
import type { CalendarFeedRow } from './breeding-rows.ts';
import type { PublicationRow, SigningKeyRow, StatementRow } from './publication-rows.ts';
import type {
  AccountRow,
  AnimalRow,
  CatalogueEntryRow,
  CollectionRow,
  AnimalListRow,
  FeedingPlanRow,
  HeatZoneRow,
  IdempotentWriteRow,
  LadderRow,
  LadderStepRow,
  MembershipRow,
  PictureRow,
  RackRow,
  RecordRow,
  StockEntryRow,
  SurfaceCheckRow,
  TubRow,
  UsedNumberRow,
} from './rows.ts';
import { postModels } from './post-models.ts';
import { waitingModels } from './waiting-models.ts';
import { saleModels, takenModels } from './sale-models.ts';
import { key, table, voidable } from './table.ts';

const { UUID, TEXT, INTEGER, DOUBLE, DATEONLY, DATE, JSONB, BOOLEAN, BIGINT } = DataTypes;

/** People, their collections, and what they sent. */
const accountModels = (sequelize: Sequelize) => ({
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
    timeZone: TEXT,
    geneticsRevision: BIGINT,
    seasonRules: JSONB,
    feedingRules: JSONB,
    orderRules: JSONB,
    saleRules: JSONB,
    pageName: TEXT,
    catalogueVersion: TEXT,
    roomAssumptions: JSONB,
    version: INTEGER,
  }),
  memberships: table<MembershipRow>(sequelize, 'memberships', {
    collectionId: key(),
    accountId: key(),
    role: TEXT,
    grants: DataTypes.ARRAY(TEXT),
  }),
  idempotentWrites: table<IdempotentWriteRow>(sequelize, 'idempotent_writes', {
    collectionId: key(),
    accountId: key(),
    key: { type: TEXT, primaryKey: true },
    fingerprint: TEXT,
    status: INTEGER,
    body: JSONB,
    createdAt: DATE,
  }),
  calendarFeeds: table<CalendarFeedRow>(sequelize, 'calendar_feeds', {
    collectionId: UUID,
    id: key(),
    name: TEXT,
    tokenDigest: TEXT,
    authorId: UUID,
    createdAt: DATE,
    revokedAt: DATE,
  }),
});

/** Racks, tubs, and what heats them. */
const enclosureModels = (sequelize: Sequelize) => ({
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
    walkOrder: INTEGER,
    version: INTEGER,
  }),
  tubs: table<TubRow>(sequelize, 'tubs', {
    collectionId: UUID,
    id: key(),
    rackId: UUID,
    level: INTEGER,
    slot: INTEGER,
  }),
  heatZones: table<HeatZoneRow>(sequelize, 'heat_zones', {
    collectionId: UUID,
    id: key(),
    rackId: UUID,
    name: TEXT,
    warmC: DOUBLE,
    coolC: DOUBLE,
    thermostat: BOOLEAN,
    everyDays: INTEGER,
    version: INTEGER,
  }),
  surfaceChecks: table<SurfaceCheckRow>(sequelize, 'surface_checks', {
    collectionId: UUID,
    id: key(),
    zoneId: UUID,
    warmC: DOUBLE,
    coolC: DOUBLE,
    probeFixed: BOOLEAN,
    ...voidable(),
  }),
});

/** Animals and their records. */
const animalModels = (sequelize: Sequelize) => ({
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
    eggId: UUID,
    tubId: UUID,
    status: TEXT,
    note: TEXT,
    version: INTEGER,
  }),
  records: table<RecordRow>(sequelize, 'records', {
    collectionId: UUID,
    id: key(),
    animalId: UUID,
    kind: TEXT,
    body: JSONB,
    replacedBy: UUID,
    takenId: UUID,
    ...voidable(),
  }),
  pictures: table<PictureRow>(sequelize, 'pictures', {
    collectionId: UUID,
    id: key(),
    animalId: UUID,
    clutchId: UUID,
    originalFile: TEXT,
    thumbFile: TEXT,
    caption: TEXT,
    isDrawing: BOOLEAN,
    takenOn: DATEONLY,
    width: INTEGER,
    height: INTEGER,
    edit: JSONB,
    file: TEXT,
    authorId: UUID,
  }),
});

/** What is published and signed. */
const publicationModels = (sequelize: Sequelize) => ({
  publications: table<PublicationRow>(sequelize, 'publications', {
    collectionId: UUID,
    id: key(),
    animalId: UUID,
    slug: TEXT,
    publishedAt: DATE,
    withdrawnAt: DATE,
    withheldReason: TEXT,
    withheldChanges: JSONB,
    authorId: UUID,
  }),
  signingKeys: table<SigningKeyRow>(sequelize, 'signing_keys', {
    collectionId: UUID,
    id: key(),
    did: TEXT,
    sealedSecret: TEXT,
    createdAt: DATE,
    replacedAt: DATE,
    succession: TEXT,
  }),
  statements: table<StatementRow>(sequelize, 'statements', {
    collectionId: UUID,
    id: key(),
    animalId: UUID,
    statement: INTEGER,
    asOf: DATEONLY,
    document: TEXT,
    shown: JSONB,
    authorId: UUID,
    issuedAt: DATE,
  }),
});

/** Feeding plans, the freezer, lists of animals, and the genes and words of the collection’s own. */
const feedingModels = (sequelize: Sequelize) => ({
  catalogueEntries: table<CatalogueEntryRow>(sequelize, 'catalogue_entries', {
    collectionId: UUID,
    id: key(),
    kind: TEXT,
    key: TEXT,
    body: JSONB,
    authorId: UUID,
    version: INTEGER,
  }),
  animalLists: table<AnimalListRow>(sequelize, 'animal_lists', {
    collectionId: key(),
    id: key(),
    name: TEXT,
    words: TEXT,
    authorId: UUID,
    version: INTEGER,
  }),
  feedingPlans: table<FeedingPlanRow>(sequelize, 'feeding_plans', {
    collectionId: key(),
    key: { type: TEXT, primaryKey: true },
    body: JSONB,
    authorId: UUID,
    version: INTEGER,
  }),
  stockEntries: table<StockEntryRow>(sequelize, 'stock_entries', {
    collectionId: UUID,
    id: key(),
    prey: TEXT,
    kind: TEXT,
    quantity: INTEGER,
    ...voidable(),
  }),
});

/** Every table of the schema, on one connection pool. */
export const createModels = (sequelize: Sequelize) => ({
  ...accessModels(sequelize),
  ...accountModels(sequelize),
  ...enclosureModels(sequelize),
  ...animalModels(sequelize),
  ...publicationModels(sequelize),
  ...saleModels(sequelize),
  ...takenModels(sequelize),
  ...postModels(sequelize),
  ...waitingModels(sequelize),
  ...feedingModels(sequelize),
  ...seasonModels(sequelize),
  ...eggModels(sequelize),
  ...projectModels(sequelize),
  ...benchModels(sequelize),
});
export type Models = ReturnType<typeof createModels>;
