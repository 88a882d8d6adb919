import type { FieldProblem, Problem } from '@karyotome/contract';

/** A request the server refused, with the field of every broken rule. */
export class ProblemError extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.detail ?? problem.title);
    this.name = 'ProblemError';
    this.problem = problem;
  }

  get errors(): readonly FieldProblem[] {
    return this.problem.errors ?? [];
  }
}

interface Options {
  readonly body?: unknown;
  /** Raw bytes of a file, with their media type. */
  readonly file?: Blob;
  readonly type?: string;
  /** The version an update is based on. */
  readonly version?: number;
  /** The act's own key, where it outlives this request: sent again later, it still takes effect once. */
  readonly key?: string;
}

let csrfToken = '';
/** The session's token against forged requests; every write carries it. */
export function useCsrfToken(token: string): void {
  csrfToken = token;
}

let onSignedOut = (): void => undefined;
/** Called when the server says that the session has ended. */
export function whenSignedOut(handler: () => void): void {
  onSignedOut = handler;
}

const RETRY_AFTER_MS = [400, 1500];

/** The only place that talks to the server. */
export async function request<T>(method: string, path: string, options: Options = {}): Promise<T> {
  const headers: Record<string, string> = { Accept: 'application/json' };
  if (method !== 'GET') {
    headers['X-CSRF-Token'] = csrfToken;
    // One key per act: sent again after a lost answer, the act still takes effect once.
    headers['Idempotency-Key'] = options.key ?? crypto.randomUUID();
  }
  if (options.version !== undefined) headers['If-Match'] = `"${options.version}"`;
  if (options.file) headers['Content-Type'] = options.type ?? options.file.type;
  else if (options.body !== undefined) headers['Content-Type'] = 'application/json';
  const body = options.file ?? (options.body === undefined ? null : JSON.stringify(options.body));
  const response = await send(`/api/v1${path}`, { method, headers, body, credentials: 'same-origin' });
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const problem = await readProblem(response);
  if (problem.status === 401 && path !== '/session') onSignedOut();
  throw new ProblemError(problem);
}

async function send(url: string, init: RequestInit): Promise<Response> {
  for (const wait of RETRY_AFTER_MS) {
    try {
      return await fetch(url, init);
    } catch {
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
  try {
    return await fetch(url, init);
  } catch {
    throw new ProblemError({
      type: 'urn:karyotome:problem:unreachable',
      title: 'The server cannot be reached',
      status: 0,
      detail: 'The server cannot be reached. What you typed is kept: try again in a moment.',
    });
  }
}

async function readProblem(response: Response): Promise<Problem> {
  try {
    return (await response.json()) as Problem;
  } catch {
    return { type: 'about:blank', title: 'The server gave no readable answer', status: response.status };
  }
}
