import type { MoveAdvice, PreyState, Task } from '@karyotome/core';
import type { AnimalSummary, TubPlace } from './animal-summary.ts';

export type TodayLine = Task & {
  key: string;
  animal: AnimalSummary | null;
  clutch: { id: string; name: string } | null;
  incubator: { id: string; name: string } | null;
  advice: (MoveAdvice & { freeTubs: TubPlace[] }) | null;
  preset: MealPreset | null;
  zone: { id: string; name: string; rack: string } | null;
};

/** What one touch records as offered. */
export interface MealPreset {
  species: 'rat' | 'mouse';
  size: string;
  preyG: number;
  state: PreyState;
  step: string | null;
}

export interface TodayView {
  today: string;
  lines: TodayLine[];
  thaw: { prey: string; count: number; left: number | null }[];
}
