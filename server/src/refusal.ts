import type { FieldProblem } from '@karyotome/contract';

/** Every reason for which something can be refused. `http/problems.ts` gives each its status and title. */
export const REFUSAL_CODES = [
  'malformed-body',
  'not-signed-in',
  'wrong-sign-in',
  'code-needed',
  'wrong-code',
  'not-allowed',
  'stale-page',
  'owner-only',
  'other-account',
  'other-collection',
  'not-found',
  'conflict',
  'key-reused',
  'too-slow',
  'stale',
  'too-large',
  'wrong-media',
  'invalid',
  'version-missing',
  'too-many',
  'too-complex',
  'busy',
  'unavailable',
  'disk-full',
  'internal',
] as const;
export type RefusalCode = (typeof REFUSAL_CODES)[number];

/** Something that was asked for and is not done, with its reason. Thrown by whatever finds the reason. */
export class Refusal extends Error {
  readonly code: RefusalCode;
  readonly errors: readonly FieldProblem[];
  /** Seconds until it is worth trying again; null where the code decides. */
  readonly retryAfter: number | null;

  constructor(
    code: RefusalCode,
    detail: string,
    more: readonly FieldProblem[] | { cause?: unknown; retryAfter?: number } = [],
  ) {
    const { cause, retryAfter } = 'length' in more ? {} : more;
    super(detail, cause === undefined ? undefined : { cause });
    this.name = 'Refusal';
    this.code = code;
    this.errors = 'length' in more ? more : [];
    this.retryAfter = retryAfter ?? null;
  }
}

export function invalidField(field: string, message: string, code = 'rule'): Refusal {
  return new Refusal('invalid', `${field} ${message}`, [{ field, code, message }]);
}

export function notFound(what: string): Refusal {
  return new Refusal('not-found', `${what} does not exist in this collection.`);
}

/** Somebody changed it since it was read. @param what - "The clutch" */
export function stale(what: string): Refusal {
  return new Refusal('stale', `${what} was changed in the meantime. Reload to see it.`);
}
