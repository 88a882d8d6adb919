import type {
  CatalogueEntryInput,
  CollectionSettings,
  HeatZoneInput,
  LabelKind,
  PlanInput,
  RecordKind,
  RoomAssumptions,
  Sensor,
  Sex,
  SortingChange,
  Status,
} from '@karyotome/contract';
import type {
  EggEventKind,
  EggSign,
  EggVerdict,
  FeedingRules,
  OrderRules,
  SeasonEventKind,
  SeasonRules,
  Observation,
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
  role: 'owner' | 'keeper' | 'viewer';
}
export interface IdempotentWriteRow {
  collectionId: string;
  accountId: string;
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
  eggId: string | null;
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
  stored: boolean;
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
  incubatorId: string | null;
  hatchedOn: string | null;
  hatched: number | null;
  note: string | null;
  version: number;
}
/** What records and events share: dated, signed, taken out of account instead of being changed. */
interface Voidable {
  onDay: string;
  note: string | null;
  authorId: string;
  recordedAt: Date;
  voidedAt: Date | null;
  voidedBy: string | null;
  voidReason: string | null;
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
export interface PairingEventRow extends Voidable {
  collectionId: string;
  id: string;
  pairingId: string;
  kind: SeasonEventKind;
  sireId: string | null;
  replacedBy: string | null;
}
export interface IncubatorRow {
  collectionId: string;
  id: string;
  name: string;
  setC: number;
  lowC: number;
  highC: number;
  lowHumidity: number | null;
  silentAfterHours: number | null;
  sensor: Sensor;
  sensorSince: Date;
  version: number;
}
export interface ReadingRow {
  collectionId: string;
  incubatorId: string;
  at: Date;
  source: 'hand' | 'logger' | 'simulated';
  celsius: number;
  humidity: number | null;
}
export interface EggRow {
  collectionId: string;
  id: string;
  clutchId: string;
  position: number;
  verdict: EggVerdict;
  massG: number | null;
  stuck: number | null;
  marked: boolean;
  x: number;
  y: number;
}
export interface EggEventRow extends Voidable {
  collectionId: string;
  id: string;
  clutchId: string;
  eggId: string | null;
  kind: EggEventKind;
  signs: EggSign[];
  young: number;
}
export interface ClutchCardRow {
  collectionId: string;
  id: string;
  clutchId: string;
  file: string;
  authorId: string;
  madeAt: Date;
}
export interface CalendarFeedRow {
  collectionId: string;
  id: string;
  name: string;
  token: string;
  authorId: string;
  createdAt: Date;
  revokedAt: Date | null;
}
export interface RecordRow extends Voidable {
  collectionId: string;
  id: string;
  animalId: string;
  kind: RecordKind;
  body: Record<string, unknown>;
  replacedBy: string | null;
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
  token: string;
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
