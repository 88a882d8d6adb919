import type { NewRoom, Sensor } from '@karyotome/contract';

/** When a place raises an alarm, and what measures it, as it is being entered. */
export interface LimitsDraft {
  lowC: number | null;
  highC: number | null;
  lowHumidity: number | null;
  silentAfterHours: number | null;
  sensor: Sensor;
}

/** @param usual - what is proposed for a new place */
export function limitsDraft(place: NewRoom | null, usual: Omit<LimitsDraft, 'sensor'>): LimitsDraft {
  if (!place) return { ...usual, sensor: 'none' };
  const { lowC, highC, lowHumidity, silentAfterHours, sensor } = place;
  return { lowC, highC, lowHumidity, silentAfterHours, sensor };
}
