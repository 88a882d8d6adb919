import type { Sensor } from '@karyotome/contract';
import type { EggEventKind, EggSign, EggVerdict, SeasonEventKind } from '@karyotome/core';
import type { Voidable } from './rows.ts';

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

export interface PairingEventRow extends Voidable {
  collectionId: string;
  id: string;
  pairingId: string;
  kind: SeasonEventKind;
  sireId: string | null;
  replacedBy: string | null;
}

/** An incubator, or a room. */
export interface ClimatePlaceRow {
  collectionId: string;
  id: string;
  kind: 'incubator' | 'room';
  name: string;
  /** Of an incubator; null for a room. */
  setC: number | null;
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
  placeId: string;
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
  tokenDigest: string;
  authorId: string;
  createdAt: Date;
  revokedAt: Date | null;
}
