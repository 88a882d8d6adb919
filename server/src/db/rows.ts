import type {
  CatalogueEntryInput,
  CollectionSettings,
  HeatZoneInput,
  LabelKind,
  PictureEdit,
  PlanInput,
  RecordKind,
  Grant,
  Role,
  RoomAssumptions,
  Sex,
  SortingChange,
  Status,
} from '@karyotome/contract';
import type {
  FeedingRules,
  Observation,
  OrderRules,
  SaleRules,
  SeasonRules,
  Sureness,
} from '@karyotome/core';

/* Table shapes only: rules live in services, constraints in migrations. */

export interface AccountRow {
  id: string;
  email: string;
  name: string;
  passwordHash: string;
}

export interface CollectionRow extends Omit<CollectionSettings, 'ladderId' | 'timeZone'> {
  id: string;
  ladderId: string | null;
  timeZone: string | null;
  geneticsRevision: string;
  /** What the keeper set; the rest are the defaults. */
  seasonRules: Partial<SeasonRules>;
  feedingRules: Partial<FeedingRules>;
  orderRules: Partial<OrderRules>;
  saleRules: Partial<SaleRules>;
  /** Of its front page, as it stands in the address. */
  pageName: string;
  catalogueVersion: string;
  roomAssumptions: Partial<RoomAssumptions>;
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
  role: Role;
  /** With the role `custom`: what it allows. */
  grants: readonly Grant[] | null;
}

export interface IdempotentWriteRow {
  collectionId: string;
  accountId: string;
  key: string;
  fingerprint: string;
  status: number;
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
  /** Its place among the racks as they are walked past. */
  walkOrder: number;
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
  eggId: string | null;
  tubId: string | null;
  status: Status;
  note: string | null;
  version: number;
}

/** What records and events share: dated, signed, taken out of account instead of being changed. */
export interface Voidable {
  onDay: string;
  note: string | null;
  authorId: string;
  recordedAt: Date;
  voidedAt: Date | null;
  voidedBy: string | null;
  voidReason: string | null;
}

export interface AnimalListRow {
  collectionId: string;
  id: string;
  name: string;
  /** As a filter is typed. */
  words: string;
  authorId: string;
  version: number;
}

export interface FeedingPlanRow {
  collectionId: string;
  key: string;
  body: PlanInput;
  authorId: string;
  version: number;
}

export interface StockEntryRow extends Voidable {
  collectionId: string;
  id: string;
  prey: string;
  kind: 'receipt' | 'count' | 'loss';
  quantity: number;
}

export interface HeatZoneRow extends HeatZoneInput {
  collectionId: string;
  id: string;
  version: number;
}

export interface SurfaceCheckRow extends Voidable {
  collectionId: string;
  id: string;
  zoneId: string;
  warmC: number;
  coolC: number;
  probeFixed: boolean;
}

export interface RecordRow extends Voidable {
  collectionId: string;
  id: string;
  animalId: string;
  kind: RecordKind;
  body: Record<string, unknown>;
  replacedBy: string | null;
  /** The statement of another breeder that it came with; null of the collection's own. */
  takenId: string | null;
}

export interface ObservationRow {
  collectionId: string;
  animalId: string;
  observations: Record<string, Observation>;
  authorId: string;
  seenAt: Date;
  version: number;
}

export interface ClutchSortingRow {
  collectionId: string;
  clutchId: string;
  groups: SortingChange['groups'];
  version: number;
}

export interface OpinionLinkRow {
  collectionId: string;
  id: string;
  clutchId: string;
  tokenDigest: string;
  animalIds: string[];
  note: string | null;
  authorId: string;
  createdAt: Date;
  expiresOn: string;
  usedAt: Date | null;
  answerKey: string | null;
  revokedAt: Date | null;
}

export interface OpinionRow {
  collectionId: string;
  id: string;
  animalId: string;
  byName: string;
  genes: string;
  sure: Sureness;
  note: string | null;
  onDay: string;
  linkId: string | null;
  authorId: string | null;
}

export interface LabelSheetRow {
  collectionId: string;
  id: string;
  file: string;
  authorId: string;
  madeAt: Date;
}

export interface PrintedLabelRow {
  collectionId: string;
  animalId: string;
  issue: number;
  sheetId: string;
  kind: LabelKind;
  content: string;
  printedAt: Date;
}

/** Of an animal, or of a clutch's card. */
export interface PictureRow {
  collectionId: string;
  id: string;
  animalId: string | null;
  clutchId: string | null;
  /** As it came, for the members alone; null for pictures from before originals were kept. */
  originalFile: string | null;
  thumbFile: string | null;
  caption: string;
  isDrawing: boolean;
  takenOn: string | null;
  width: number;
  height: number;
  edit: PictureEdit | null;
  file: string;
  authorId: string;
}

export interface UsedNumberRow {
  collectionId: string;
  number: string;
}
