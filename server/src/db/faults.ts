/*
 * What the database, the disk and the connection between them say when something fails, told apart by their codes, never by
 * their words.
 */

interface Fault {
  readonly name?: string;
  readonly code?: unknown;
  readonly parent?: Fault;
  readonly cause?: Fault;
  readonly constraint?: unknown;
  readonly table?: unknown;
}

/** The SQLSTATE of PostgreSQL or the code of the operating system behind an error; null where there is none. */
export function codeOf(error: unknown): string | null {
  let one = error as Fault | undefined;
  for (let depth = 0; one && depth < 5; depth++) {
    if (typeof one.code === 'string') return one.code;
    one = one.parent ?? one.cause;
  }
  return null;
}

export function constraintOf(error: unknown): string {
  const { parent, constraint } = error as Fault;
  return String(parent?.constraint ?? constraint ?? '');
}

/** A row with the same key is there already (unique_violation). */
export const isTaken = (error: unknown): boolean => codeOf(error) === '23505';

/** A row refers to one that is not there, or is referred to (foreign_key_violation). */
export const isLoose = (error: unknown): boolean => codeOf(error) === '23503';

/** Sequelize's own names for "there is no connection". */
const NO_CONNECTION = /^Sequelize(Connection|Host)/;
/** SQLSTATE 08: connection; 57P: shut down, crashed, starting; 53300: too many connections; 25006: only to be read. */
const GONE = /^(08...|57P0\d|53300|25006|ECONN\w+|EPIPE|ENOTFOUND|ETIMEDOUT)$/;

/** The database cannot be reached now; it may be back in a moment. */
export function isDatabaseAway(error: unknown): boolean {
  const { name } = error as { name?: string };
  return (name !== undefined && NO_CONNECTION.test(name)) || GONE.test(codeOf(error) ?? '');
}

/**
 * A deadlock or a serialisation failure: the database asks to do the whole again. So it is where somebody else took a
 * write's key at the same moment (23505): then the write is found answered.
 */
export function isToBeDoneAgain(error: unknown): boolean {
  const code = codeOf(error);
  const isOfKey = isTaken(error) && constraintOf(error).startsWith('idempotent_writes');
  return code === '40001' || code === '40P01' || isOfKey;
}

/** A disk is full: PostgreSQL's (53100) or this server's own. */
export function isDiskFull(error: unknown): boolean {
  const code = codeOf(error);
  return code === '53100' || code === 'ENOSPC' || code === 'EDQUOT';
}

/** A wait for a lock, or a statement, that took longer than it may (55P03, 57014). */
export function isTooLong(error: unknown): boolean {
  const code = codeOf(error);
  return code === '55P03' || code === '57014';
}

/** A value that the database cannot hold although its schema let it pass (SQLSTATE 22: data exception). */
export function isDataException(error: unknown): boolean {
  return /^22\w{3}$/.test(codeOf(error) ?? '');
}

/**
 * What may stand in a log of an error: its class, codes and where it was thrown. Not its words, where it came from the
 * database: they repeat values.
 */
export function forLog(error: unknown): object {
  if (!(error instanceof Error)) return { type: typeof error };
  const isOfDatabase = error.name.startsWith('Sequelize') || /^[0-9A-Z]{5}$/.test(codeOf(error) ?? '');
  const frames = (error.stack ?? '').split('\n').filter((line) => line.trimStart().startsWith('at '));
  return {
    type: error.name,
    ...(isOfDatabase
      ? { code: codeOf(error), constraint: constraintOf(error) }
      : { message: error.message, code: codeOf(error) }),
    stack: frames.slice(0, 12).join('\n'),
  };
}
