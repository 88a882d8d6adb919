/** One broken rule: a stable code, where it was broken (dotted path), and plain words for the person at the form. */
export interface Issue {
  readonly code: string;
  readonly path: string;
  readonly message: string;
}

/** The input is wrong. Carries every issue found, in the order of the input. */
export class InputError extends Error {
  readonly issues: readonly Issue[];

  constructor(issues: readonly Issue[]) {
    super(issues.map((issue) => `${issue.path}: ${issue.message}`).join('; '));
    this.name = 'InputError';
    this.issues = issues;
  }
}

/** An exact answer would need a larger table than the caller allows. */
export class CostError extends Error {
  readonly estimate: number;
  readonly limit: number;

  constructor(estimate: number, limit: number) {
    super(`needs a table of ${estimate} entries, the limit is ${limit}`);
    this.name = 'CostError';
    this.estimate = estimate;
    this.limit = limit;
  }
}

/**
 * What an exact answer is, or null where it is out of reach.
 *
 * @example exactly(() => 1) // 1
 */
export function exactly<T>(ask: () => T): T | null {
  try {
    return ask();
  } catch (error) {
    if (error instanceof CostError) return null;
    throw error;
  }
}
