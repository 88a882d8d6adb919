import type { IsoDay } from '../calendar/days.ts';
import type { Task } from './today.ts';

/** A part of a rack that one thermostat heats. Degrees Celsius at the surface. */
export interface HeatZone {
  readonly warmC: number;
  readonly coolC: number;
  readonly thermostat: boolean;
}
export interface SurfaceReading {
  readonly warmC: number;
  readonly coolC: number;
  readonly probeFixed: boolean;
}

/** Warm and cool side as people keep them, degrees Celsius. Common practice, no source. */
export const USUAL_HEAT = { warmC: 32.8, coolC: 27.8, everyDays: 30 } as const;
/** So far from what it should be is worth a word. */
const LEEWAY_C = 1.5;
/** Above this a surface burns. Common practice, no source. */
const BURNS_C = 36;

/** What is wrong with a heat zone, in words; empty where all is well. */
export function heatFaults(zone: HeatZone, last: SurfaceReading | null): string[] {
  return [
    ...(zone.thermostat ? [] : ['no thermostat: a heat mat without one burns and kills']),
    ...(last && !last.probeFixed ? ['the probe hung loose: the mat runs hot'] : []),
    ...(last && last.warmC >= BURNS_C ? [`${last.warmC} °C on the warm side burns`] : []),
    ...(last && last.warmC < BURNS_C ? off('warm', last.warmC, zone.warmC) : []),
    ...(last ? off('cool', last.coolC, zone.coolC) : []),
  ];
}

function off(side: string, measured: number, wanted: number): string[] {
  if (Math.abs(measured - wanted) <= LEEWAY_C) return [];
  return [`${measured} °C on the ${side} side, not ${wanted} °C`];
}

/** A heat zone that is due for its check, or has something wrong. */
export function heatTasks(
  zone: { faults: readonly string[]; dueOn: IsoDay; everyDays: number },
  today: IsoDay,
): Task[] {
  if (zone.faults.length === 0 && zone.dueOn > today) return [];
  const fault = zone.faults[0];
  return [
    {
      kind: 'heat',
      text: fault ? `Heat: ${fault}` : 'Check the heat at the surface',
      why: `${zone.faults.join('. ')}${fault ? '. ' : ''}Every ${zone.everyDays} days, with an infrared thermometer, and the thermostat’s probe fixed down: one that hangs in the air lets the mat run hot.`,
      dueOn: zone.dueOn > today ? today : zone.dueOn,
      records: [],
    },
  ];
}
