import type { ClimateAlarm } from '@karyotome/core';
import type { NewIncubator, NewRoom } from './climate-requests.ts';

/** How it is at a place, and was. */
export interface ClimateView {
  last: { at: string; celsius: number; humidity: number | null; source: string } | null;
  alarms: ClimateAlarm[];
  /** Hourly means of the last days. */
  series: { at: string; celsius: number; low: number; high: number; humidity: number | null }[];
}

export interface IncubatorView extends NewIncubator, ClimateView {
  id: string;
  version: number;
  clutches: { id: string; name: string; day: number }[];
}

export interface RoomClimateView extends NewRoom, ClimateView {
  id: string;
  version: number;
}

export interface ReadingsImport {
  taken: number;
  known: number;
  from: string;
  to: string;
}
