import type { Grant, Role, TokenScope } from '@karyotome/contract';

/* What lets people in. */

export interface InvitationRow {
  collectionId: string;
  id: string;
  name: string;
  role: Role;
  /** With the role `custom`: what it allows. */
  grants: readonly Grant[] | null;
  authorId: string;
  expiresAt: Date;
  takenBy: string | null;
  takenAt: Date | null;
  withdrawnAt: Date | null;
}

export interface AccessTokenRow {
  collectionId: string;
  id: string;
  accountId: string;
  name: string;
  scope: TokenScope;
  expiresAt: Date;
  usedAt: Date | null;
  revokedAt: Date | null;
}

/** What an account signs in with besides its password. */
export interface SecondFactorRow {
  accountId: string;
  sealedSecret: string;
  /** Null until a first code was given: then it does not count. */
  confirmedAt: Date | null;
  /** The last time step of which a code was taken: none counts twice. */
  lastStep: number;
  /** What recovery codes are made of. */
  recoverySet: string;
  usedCodes: number[];
}

export interface PasskeyRow {
  id: string;
  /** As the authenticator calls it, base64url. */
  credentialId: string;
  accountId: string;
  name: string;
  publicKey: Buffer;
  counter: number;
  transports: string[];
  usedAt: Date | null;
}

export interface SessionRow {
  sid: string;
}
