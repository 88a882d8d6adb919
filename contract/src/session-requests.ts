import type { NumberPattern } from '@karyotome/core';
import Joi from 'joi';
import { currency, id, optional, text, timeZone, type Optional } from './fields.ts';

/** Of the second factor: six digits of an authenticator, or a recovery code. Spaces and dashes do not count. */
const factorCode = (): Joi.StringSchema => Joi.string().min(6).max(30);

export interface SignIn {
  email: string;
  password: string;
  /** Of the second factor, where the account has one. */
  code?: Optional<string>;
}

export const signIn = Joi.object<SignIn, true>({
  email: Joi.string().email({ tlds: false }).max(200).required(),
  password: Joi.string().min(1).max(200).required(),
  code: optional(factorCode()),
});

/** The password that somebody has, asked again before what would let others in. */
export interface PasswordGiven {
  password: string;
}

export const passwordGiven = Joi.object<PasswordGiven, true>({
  password: Joi.string().min(1).max(200).required(),
});

export interface FactorCode {
  code: string;
}

export const factorCodeInput = Joi.object<FactorCode, true>({ code: factorCode().required() });

/** What an authenticator answered, as WebAuthn Level 3 has it in JSON; read and checked by the server's own package. */
export interface PasskeyAnswer {
  response: object;
}

const webAuthnAnswer = () => Joi.object<object>().unknown(true).required();

export const passkeyAnswer = Joi.object<PasskeyAnswer, true>({ response: webAuthnAnswer() });

export interface NewPasskey extends PasskeyAnswer {
  name: string;
}

export const newPasskey = Joi.object<NewPasskey, true>({
  name: text(80).min(1).required(),
  response: webAuthnAnswer(),
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

/** What can be granted in a collection, from looking to everything that is not the owner's alone. */
export const GRANTS = ['view', 'record', 'breed', 'house', 'sell', 'manage'] as const;
export type Grant = (typeof GRANTS)[number];

/** Sets of permissions with a name. */
export const PRESET_ROLES = ['owner', 'keeper', 'helper', 'viewer'] as const;
/** `custom`: a set that the owner put together. */
export const ROLES = [...PRESET_ROLES, 'custom'] as const;
export type PresetRole = (typeof PRESET_ROLES)[number];
export type Role = (typeof ROLES)[number];

export const PRESET_GRANTS: Readonly<Record<PresetRole, readonly Grant[]>> = {
  owner: GRANTS,
  keeper: ['view', 'record', 'breed', 'house', 'sell'],
  helper: ['view', 'record'],
  viewer: ['view'],
};

/** What somebody is given: a preset, or a set of one's own. Whoever may do anything may look. */
export interface RoleChoice {
  role: Role;
  /** With `custom`, and only then. */
  grants?: Grant[];
}

/** What a role allows. @param grants - of a set of one's own */
export const grantsOf = ({
  role,
  grants,
}: {
  readonly role: Role;
  readonly grants?: readonly Grant[] | null | undefined;
}): readonly Grant[] => (role === 'custom' ? (grants ?? []) : PRESET_GRANTS[role]);

/** Identifications and moves are records as well: of no use to somebody who may not record. */
export const NEEDING_RECORD: readonly Grant[] = ['breed', 'house'];

const role = (): Joi.StringSchema => Joi.string().valid(...ROLES);
const grants = () =>
  Joi.array()
    .items(Joi.string().valid(...GRANTS))
    .unique()
    .has('view')
    .custom((chosen: Grant[], { error }) =>
      chosen.includes('record') || !chosen.some((grant) => NEEDING_RECORD.includes(grant))
        ? chosen
        : error('any.invalid'),
    )
    .when('role', { is: 'custom', then: Joi.required(), otherwise: Joi.forbidden() });

export interface InvitationInput extends RoleChoice {
  /** For whom, as whoever invites calls them. */
  name: string;
  /** Where the link is mailed to; left out, it is only shown. */
  email?: Optional<string>;
}

export const invitationInput = Joi.object<InvitationInput, true>({
  name: text(80).min(1).required(),
  email: optional(Joi.string().email({ tlds: false }).max(200)),
  role: role().required(),
  grants: grants(),
});

export type MemberChange = RoleChoice;

export const memberChange = Joi.object<MemberChange, true>({ role: role().required(), grants: grants() });

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
  /** Of the second factor, where the account has one. */
  code?: Optional<string>;
}

export const joining = Joi.object<Joining, true>({
  token: token().required(),
  email: Joi.string().email({ tlds: false }).max(200).required(),
  password: Joi.string().min(1).max(200).required(),
  name: optional(text(80).min(1)),
  code: optional(factorCode()),
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

const numberPattern = () => Joi.string<NumberPattern>().valid('season-clutch-hatchling', 'running', 'free');
const massUnit = () => Joi.string<'g' | 'oz'>().valid('g', 'oz');
const temperatureUnit = () => Joi.string<'C' | 'F'>().valid('C', 'F');

export const collectionSettings = Joi.object<CollectionSettings, true>({
  name: text(80).min(1).required(),
  numberPattern: numberPattern().required(),
  massUnit: massUnit().required(),
  temperatureUnit: temperatureUnit().required(),
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

/** Somebody has forgotten their password. */
export interface ForgottenPassword {
  email: string;
}

export const forgottenPassword = Joi.object<ForgottenPassword, true>({
  email: Joi.string().email({ tlds: false }).max(200).required(),
});

/** What the farm is called and how it counts, said at the first start. */
export interface NewFarm extends Pick<
  CollectionSettings,
  'name' | 'numberPattern' | 'massUnit' | 'temperatureUnit'
> {
  timeZone: string;
  /** ISO 4217. */
  currency: string;
}

/** The first start of an installation: its first owner, and their farm. */
export interface FirstStart {
  /** The code that the server shows when it starts and nobody has an account yet. */
  code: string;
  name: string;
  email: string;
  password: string;
  farm: NewFarm;
}

export const firstStart = Joi.object<FirstStart, true>({
  code: token().required(),
  name: text(80).min(1).required(),
  email: Joi.string().email({ tlds: false }).max(200).required(),
  password: newPassword().required(),
  farm: Joi.object<NewFarm, true>({
    name: text(80).min(1).required(),
    numberPattern: numberPattern().required(),
    massUnit: massUnit().required(),
    temperatureUnit: temperatureUnit().required(),
    timeZone: timeZone().required(),
    currency: currency().required(),
  }).required(),
});
