import Joi from 'joi';

/*
 * What a backup is: a BagIt bag (RFC 8493) in a zip. `data/backup.json` describes it, `data/database.dump` is PostgreSQL's own
 * dump (pg_dump, custom format), and `data/files/` holds the files that rows name. All of it is of one moment.
 */

export const FORMAT = 'karyotome-backup/1';
export const DESCRIPTION = 'backup.json';
export const DUMP = 'database.dump';
export const FILES = 'files/';

/**
 * Rows of these are left out: who is signed in, what is counted for some minutes, and which backups this machine has. Whoever
 * restores signs in again.
 */
export const WITHOUT_ROWS = ['sessions', 'rate_limits', 'backups'] as const;

/** What a table held. */
export interface TableSummary {
  readonly rows: number;
  /** The sum over its rows of the first 64 bits of each row's MD5: the same in whatever order they lie. */
  readonly digest: string;
}

/** A secret under a key that scrypt makes of the passphrase. */
export interface SealedSecret {
  readonly kdf: { readonly name: string; readonly N: number; readonly r: number; readonly p: number } & {
    readonly salt: string;
  };
  readonly cipher: string;
  readonly sealed: string;
}

export interface Description {
  readonly format: typeof FORMAT;
  /** RFC 3339. */
  readonly madeAt: string;
  /** The migrations that the database had run: only a program that knows them can use it. */
  readonly migrations: readonly string[];
  /** PostgreSQL's, as its server_version_num: an older one may not read the dump. */
  readonly postgres: number;
  readonly tables: Readonly<Record<string, TableSummary>>;
  /** Files that rows name and that were missing or damaged already, by folder and name. */
  readonly missing: readonly string[];
  /** What encrypts the collections' signing keys. */
  readonly signingSecret: SealedSecret;
}

const text = () => Joi.string().max(400).required();
const count = () => Joi.number().integer().min(0).required();

export const description = Joi.object<Description>({
  format: Joi.string().valid(FORMAT).required(),
  madeAt: Joi.string().isoDate().required(),
  migrations: Joi.array().items(Joi.string().max(200)).required(),
  postgres: count(),
  tables: Joi.object()
    .pattern(/^[a-z_]+$/, Joi.object({ rows: count(), digest: text() }))
    .required(),
  missing: Joi.array().items(Joi.string().max(1000)).required(),
  signingSecret: Joi.object({
    kdf: Joi.object({ name: text(), N: count(), r: count(), p: count(), salt: text() }).required(),
    cipher: text(),
    sealed: text(),
  }).required(),
});
