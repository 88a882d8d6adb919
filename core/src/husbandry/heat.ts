import type { FactOf } from '../facts.ts';

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

/** What is wrong with a heat zone; temperatures in degrees Celsius. */
export interface HeatFaults {
  readonly 'no-thermostat': object;
  readonly 'probe-loose': object;
  readonly 'burning-surface': { readonly celsius: number };
  readonly 'off-target': {
    readonly side: 'warm' | 'cool';
    readonly celsius: number;
    readonly targetC: number;
  };
}
export type HeatFault = FactOf<HeatFaults>;

/**
 * @returns what is wrong, gravest first; empty where all is well
 *
 * @example heatFaults({ warmC: 32.8, coolC: 27.8, thermostat: false }, null).map(({ code }) => code) // ["no-thermostat"]
 */
export function heatFaults(zone: HeatZone, last: SurfaceReading | null): HeatFault[] {
  return [
    ...(zone.thermostat ? [] : [{ code: 'no-thermostat', facts: {} } as const]),
    ...(last && !last.probeFixed ? [{ code: 'probe-loose', facts: {} } as const] : []),
    ...(last && last.warmC >= BURNS_C
      ? [{ code: 'burning-surface', facts: { celsius: last.warmC } } as const]
      : []),
    ...(last && last.warmC < BURNS_C ? offTarget('warm', last.warmC, zone.warmC) : []),
    ...(last ? offTarget('cool', last.coolC, zone.coolC) : []),
  ];
}

function offTarget(side: 'warm' | 'cool', celsius: number, targetC: number): HeatFault[] {
  if (Math.abs(celsius - targetC) <= LEEWAY_C) return [];
  return [{ code: 'off-target', facts: { side, celsius, targetC } }];
}
