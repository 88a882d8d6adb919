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

/** The fewest characters of a password that is chosen. */
export const LEAST_PASSWORD = 12;

const newPassword = (): Joi.StringSchema => Joi.string().min(LEAST_PASSWORD).max(200);

export interface PasswordChange {
  current: string;
  next: string;
}

export const passwordChange = Joi.object<PasswordChange, true>({
  current: Joi.string().min(1).max(200).required(),
  next: newPassword().required(),
});

/** What somebody may do in a collection, from looking to everything. */
export const ROLES = ['owner', 'keeper', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

const role = (): Joi.StringSchema => Joi.string().valid(...ROLES);

export interface InvitationInput {
  /** For whom, as whoever invites calls them. */
  name: string;
  role: Role;
}

export const invitationInput = Joi.object<InvitationInput, true>({
  name: text(80).min(1).required(),
  role: role().required(),
});

export interface MemberChange {
  role: Role;
}

export const memberChange = Joi.object<MemberChange, true>({ role: role().required() });

/** The secret part of an invitation's link. */
const token = (): Joi.StringSchema => Joi.string().max(200);

export interface InvitationToken {
  token: string;
}

export const invitationToken = Joi.object<InvitationToken, true>({ token: token().required() });

/** Who takes an invitation: with an account of this installation, or a new one. */
export interface Joining extends InvitationToken {
  email: string;
  password: string;
  /** For a new account; an account that is there keeps its name. */
  name?: Optional<string>;
}

export const joining = Joi.object<Joining, true>({
  token: token().required(),
  email: Joi.string().email({ tlds: false }).max(200).required(),
  password: Joi.string().min(1).max(200).required(),
  name: optional(text(80).min(1)),
});

export interface CollectionChoice {
  collectionId: string;
}

export const collectionChoice = Joi.object<CollectionChoice, true>({ collectionId: id().required() });

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

/** What a program may do with a token: look, or look and record. Never more than its person may. */
export const TOKEN_SCOPES = ['view', 'record'] as const;
export type TokenScope = (typeof TOKEN_SCOPES)[number];

/** The longest that a token is good for. */
export const MOST_TOKEN_DAYS = 366;

export interface TokenInput {
  name: string;
  scope: TokenScope;
  /** How long it is good for. */
  days: number;
}

export const tokenInput = Joi.object<TokenInput, true>({
  name: text(80).min(1).required(),
  scope: Joi.string()
    .valid(...TOKEN_SCOPES)
    .required(),
  days: Joi.number().integer().min(1).max(MOST_TOKEN_DAYS).required(),
});

export interface PasswordReset {
  /** The secret part of the link. */
  code: string;
  password: string;
}

export const passwordReset = Joi.object<PasswordReset, true>({
  code: token().required(),
  password: newPassword().required(),
});
