import type { NumberPattern } from '@karyotome/core';
import Joi from 'joi';
import { id, optional, text, timeZone, type Optional } from './fields.ts';

export interface SignIn {
  email: string;
  password: string;
}

export const signIn = Joi.object<SignIn, true>({
  email: Joi.string().email({ tlds: false }).max(200).required(),
  password: Joi.string().min(1).max(200).required(),
});

export interface CollectionSettings {
  name: string;
  numberPattern: NumberPattern;
  massUnit: 'g' | 'oz';
  temperatureUnit: 'C' | 'F';
  ladderId: Optional<string>;
  /** The farm's time zone, whose days all records have; null until it was said. */
  timeZone?: Optional<string>;
}

export const collectionSettings = Joi.object<CollectionSettings, true>({
  name: text(80).min(1).required(),
  numberPattern: Joi.string().valid('season-clutch-hatchling', 'running', 'free').required(),
  massUnit: Joi.string().valid('g', 'oz').required(),
  temperatureUnit: Joi.string().valid('C', 'F').required(),
  ladderId: optional(id()),
  timeZone: optional(timeZone()),
});
