import Joi from 'joi';
import { moment, optional, text, type Optional } from './fields.ts';

export const SENSORS = ['none', 'simulated', 'simulated-failing'] as const;
export type Sensor = (typeof SENSORS)[number];

/** A place whose temperature and humidity are watched: within which it is left alone, and what measures it. */
export interface NewRoom {
  name: string;
  lowC: number;
  highC: number;
  lowHumidity: number | null;
  silentAfterHours: number | null;
  sensor: Sensor;
}
export interface NewIncubator extends NewRoom {
  /** What its thermostat is set to, degrees Celsius. */
  setC: number;
}

const place = (lowestC: number) => ({
  name: text(60).min(1).required(),
  lowC: Joi.number().min(lowestC).max(40).less(Joi.ref('highC')).required(),
  highC: Joi.number().min(lowestC).max(45).required(),
  lowHumidity: Joi.number().min(1).max(100).allow(null).required(),
  silentAfterHours: Joi.number().min(0.5).max(500).allow(null).required(),
  sensor: Joi.string()
    .valid(...SENSORS)
    .required(),
});
const LIMITS_CROSSED = { 'number.less': 'must be less than the upper limit' };

/** Rooms are let cool by night and in the season, incubators are not. */
export const newRoom = Joi.object<NewRoom, true>(place(5)).messages(LIMITS_CROSSED);
export const newIncubator = Joi.object<NewIncubator, true>({
  ...place(15),
  setC: Joi.number().min(20).max(40).required(),
}).messages(LIMITS_CROSSED);

export interface NewReading {
  at: string;
  celsius: number;
  humidity?: Optional<number>;
}
export const newReading = Joi.object<NewReading, true>({
  at: moment().required(),
  celsius: Joi.number().min(-10).max(60).required(),
  humidity: optional(Joi.number().min(0).max(100)),
});
