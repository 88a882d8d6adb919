import type { Tag } from './tags.ts';
import type { CollectionSettings, Role, TokenScope } from './session-requests.ts';
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
  since: string;
}

/** An invitation that nobody has taken yet. */
export interface InvitationView {
  id: string;
  name: string;
  role: Role;
  by: string;
  createdAt: string;
  expiresAt: string;
}

/** A new invitation: its secret is told this once. */
export interface NewInvitation {
  id: string;
  token: string;
  expiresAt: string;
}

/** What an invitation is to. */
export interface InvitationOffer {
  collection: string;
  role: Role;
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
