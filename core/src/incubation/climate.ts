import type { FactOf } from '../facts.ts';

/** A measurement in an incubator or a room. */
export interface Reading {
  /** Milliseconds since 1970, UTC. */
  readonly atMs: number;
  readonly celsius: number;
  /** Relative humidity, percent; null where it was not measured. */
  readonly humidity: number | null;
}

/** Within which an incubator or a room is left alone. */
export interface ClimateLimits {
  readonly lowC: number;
  readonly highC: number;
  readonly lowHumidity: number | null;
  /** A sensor or logger that says nothing for longer is silent, hours; null where nobody expects it to speak. */
  readonly silentAfterHours: number | null;
}

/** What is wrong in an incubator or a room. `celsius` and `limitC` in degrees Celsius, humidity in percent. */
export interface ClimateAlarms {
  readonly 'too-warm': { readonly celsius: number; readonly limitC: number };
  readonly 'too-cold': { readonly celsius: number; readonly limitC: number };
  readonly 'too-dry': { readonly humidity: number; readonly limit: number };
  /** Hours since the last reading; null with none yet. */
  readonly silent: { readonly hours: number | null };
}
export type ClimateAlarm = FactOf<ClimateAlarms>;

const HOUR_MS = 3_600_000;

/**
 * What is wrong in an incubator or a room now.
 *
 * @param last - the latest reading, null with none
 * @example climateAlarms({ atMs: 0, celsius: 33.1, humidity: null }, { lowC: 30.5, highC: 32.2, lowHumidity: null, silentAfterHours: null }, 0).map(({ code }) => code) // ["too-warm"]
 */
export function climateAlarms(last: Reading | null, limits: ClimateLimits, nowMs: number): ClimateAlarm[] {
  const hours = last ? (nowMs - last.atMs) / HOUR_MS : null;
  // What was measured that long ago says nothing about now.
  if (limits.silentAfterHours !== null && (hours === null || hours > limits.silentAfterHours))
    return [{ code: 'silent', facts: { hours } }];
  if (!last) return [];
  const { celsius, humidity } = last;
  const alarms: ClimateAlarm[] = [];
  if (celsius > limits.highC) alarms.push({ code: 'too-warm', facts: { celsius, limitC: limits.highC } });
  if (celsius < limits.lowC) alarms.push({ code: 'too-cold', facts: { celsius, limitC: limits.lowC } });
  if (limits.lowHumidity !== null && humidity !== null && humidity < limits.lowHumidity)
    alarms.push({ code: 'too-dry', facts: { humidity, limit: limits.lowHumidity } });
  return alarms;
}

/** What the simulated sensor plays: a steady incubator, or one whose heater fails. */
export type SensorPlay = 'steady' | 'heater-fails';

const DAY_MS = 24 * HOUR_MS;
const ROOM_C = 23;
/** Of a box with eggs, percent. */
const BOX_HUMIDITY = 92;
/** Of the air of a room, percent. */
const AIR_HUMIDITY = 55;

/** What the simulated sensor reads when nothing fails. */
export interface SteadyClimate {
  /** Degrees Celsius. */
  readonly setC: number;
  /** Percent; of a box with eggs where nothing is said. */
  readonly humidity?: number;
}

/**
 * Around what the simulated sensor of a place plays: an incubator is set to something, a room stays in the middle of its limits.
 *
 * @param place - degrees Celsius; without a setting it is a room
 * @example steadyClimate({ lowC: 24, highC: 30 }) // {"setC": 27, "humidity": 55}
 */
export function steadyClimate({
  setC,
  lowC,
  highC,
}: Pick<ClimateLimits, 'lowC' | 'highC'> & { readonly setC?: number | null }): SteadyClimate {
  return setC == null ? { setC: (lowC + highC) / 2, humidity: AIR_HUMIDITY } : { setC };
}

/**
 * The simulated sensor: no measurement, a stand-in to try things out with. The room's day and the thermostat's swing show a
 * little; the same moment always reads the same. With a failed heater the box cools to the room within hours.
 *
 * @param failedAtMs - since when the heater is off, for `heater-fails`
 * @example simulatedReading(0, { setC: 31.4 }).celsius // 31.4
 */
export function simulatedReading(
  atMs: number,
  around: SteadyClimate,
  play: SensorPlay = 'steady',
  failedAtMs = atMs,
): Reading {
  const swing = 0.12 * Math.sin((2 * Math.PI * atMs) / (3.1 * HOUR_MS));
  const room = 0.1 * Math.sin((2 * Math.PI * (atMs % DAY_MS)) / DAY_MS);
  const noise = 0.05 * Math.sin(atMs / 137_000) * Math.cos(atMs / 91_000);
  const steady = around.setC + swing + room + noise;
  const offHours = play === 'heater-fails' ? Math.max(0, (atMs - failedAtMs) / HOUR_MS) : 0;
  const celsius = ROOM_C + (steady - ROOM_C) * Math.exp(-offHours / 4);
  return {
    atMs,
    celsius: Math.round(celsius * 100) / 100,
    humidity: Math.round(((around.humidity ?? BOX_HUMIDITY) + 2 * Math.sin(atMs / (5 * HOUR_MS))) * 10) / 10,
  };
}
