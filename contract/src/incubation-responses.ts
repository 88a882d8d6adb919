import type { ClimateAlarm, EggEventKind, EggSign, EggState, IncubationClock } from '@karyotome/core';
import type { EggInput } from './incubation-requests.ts';

export interface EggView extends Required<EggInput> {
  position: number;
  state: EggState;
  hatchlings: { id: string; number: string }[];
}

export interface EggEventView {
  id: string;
  kind: EggEventKind;
  on: string;
  eggId: string | null;
  signs: EggSign[];
  young: number;
  note: string | null;
  author: string;
}

export interface ClutchView {
  id: string;
  name: string;
  season: number;
  version: number;
  dam: { id: string; number: string; name: string | null; label: string };
  sires: { id: string; number: string; name: string | null; label: string; p: number; stored: boolean }[];
  locks: number;
  ovulatedOn: string | null;
  shedOn: string | null;
  laidOn: string;
  hatchedOn: string | null;
  hatched: number | null;
  note: string | null;
  incubationC: number | null;
  incubator: { id: string; name: string; alarms: ClimateAlarm[] } | null;
  eggs: EggView[];
  events: EggEventView[];
  clock: IncubationClock;
  /** Mean temperature by day of incubation, where it was measured. */
  means: { day: number; celsius: number }[];
  /** How often each number of young left the egg so far. */
  counts: { good: number; slugs: number; pipped: number; out: number; died: number; young: number };
  nextNumbers: string[];
  cards: { id: string; madeAt: string; by: string }[];
}
