import type { Tag } from './tags.ts';
import type { CollectionSettings, Grant, Role, TokenScope } from './session-requests.ts';
import type { Permission } from './routes/route.ts';

export interface SessionView {
  account: { id: string; name: string; email: string };
  role: Role;
  /** What this person may do in the collection. */
  permissions: Permission[];
  /** `farmZone` is the zone that counts: the one that was said, or until then the server's. */
  collection: CollectionSettings & { id: string; version: number; farmZone: string };
  /** All collections of this person, by name. */
  collections: { id: string; name: string }[];
  /** The collection's front page is at `/c/` and this. */
  pageName: string;
  /** So many days later it is on this server than the calendar says: 0 but where it is tried out. */
  daysAhead: number;
  csrfToken: string;
}

/** What people who watch a collection are told at once, beside that something changed. */
export type Notice = { code: 'tub-shared'; facts: { tub: string; numbers: string[] } };

/** How far long work is. `of` is 0 where that is not known yet. */
export interface JobProgress {
  step: 'reading' | 'checking' | 'writing';
  done: number;
  of: number;
}

/** That something in a collection changed: which parts of it. */
export interface ChangeEvent {
  readonly tags: readonly Tag[];
  /** Where it was the daily work of these animals alone; what is shown of another one alone is as it was. */
  readonly animals?: readonly string[];
}

/** What whoever is not signed in can do here. */
export interface FirstStartView {
  /** Nobody has an account yet: the first owner is made. */
  isOpen: boolean;
  /** A link for another password is mailed to whoever forgot theirs. */
  mailsResets: boolean;
}

/** A browser in which the account is signed in. */
export interface DeviceView {
  id: string;
  /** What the browser calls itself; null where it said nothing. */
  userAgent: string | null;
  signedInAt: string | null;
  /** To the nearest ten minutes. */
  usedAt: string;
  /** The one that asks. */
  isThis: boolean;
}

export interface MemberView {
  id: string;
  name: string;
  email: string;
  role: Role;
  /** What the role allows. */
  grants: readonly Grant[];
  since: string;
}

/** The second factor of an account. */
export interface SecondFactorView {
  /** Since when; null where there is none. */
  since: string | null;
  recoveryCodesLeft: number;
}

/** What an authenticator is set up with. */
export interface SecondFactorStart {
  /** Base32, for typing. */
  secret: string;
  /** `otpauth://totp/…`, for a QR code. */
  uri: string;
}

/** Told once. */
export interface RecoveryCodes {
  codes: string[];
}

export interface PasskeyView {
  id: string;
  name: string;
  createdAt: string;
  usedAt: string | null;
}

/** What the browser hands to an authenticator, as WebAuthn Level 3 has it in JSON. */
export interface PasskeyOptions {
  options: object;
}

/** An invitation that nobody has taken yet. */
export interface InvitationView {
  id: string;
  name: string;
  role: Role;
  /** What the role allows. */
  grants: readonly Grant[];
  by: string;
  createdAt: string;
  expiresAt: string;
}

/** A new invitation: its secret is told this once. */
/** A collection that came in. */
export interface ImportedCollection {
  name: string;
  rows: number;
  files: number;
  /** Files that were missing already where it was exported. */
  missing: readonly string[];
}

export interface NewInvitation {
  id: string;
  token: string;
  expiresAt: string;
  /** Whether its link was mailed. */
  isMailed: boolean;
}

/** What an invitation is to. */
export interface InvitationOffer {
  collection: string;
  role: Role;
  /** What the role allows. */
  grants: readonly Grant[];
  by: string;
}

/** What a program of this person signs in with. */
export interface TokenView {
  id: string;
  name: string;
  scope: TokenScope;
  createdAt: string;
  expiresAt: string;
  /** To the nearest ten minutes; null until it was used. */
  usedAt: string | null;
}

/** A new token: its secret is told this once. */
export interface NewToken {
  id: string;
  token: string;
  expiresAt: string;
}

export const BACKUP_FAULTS = ['disk-full', 'folder-not-writable', 'program-missing', 'failed'] as const;
/** Why a backup could not be made. */
export type BackupFault = (typeof BACKUP_FAULTS)[number];

/** When the whole server, with all its collections, was last backed up. */
export interface BackupView {
  /** Whether backups are made every night. */
  isNightly: boolean;
  last: {
    /** RFC 3339. */
    madeAt: string;
    folder: string;
    file: string;
    bytes: number;
    rows: number;
    files: number;
    /** Files that records name and that were missing or damaged already. */
    missing: number;
  } | null;
  /** The last attempt that failed, where none has succeeded since. */
  failed: { at: string; fault: BackupFault } | null;
  /** There is none, or the last one is older than it should be. */
  isLate: boolean;
}
