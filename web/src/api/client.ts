import type { FieldProblem, Problem, PublicAnimal } from '@karyotome/contract';

/** A request the server refused, with the field of every broken rule. */
export class ProblemError extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.detail ?? problem.title);
    this.name = 'ProblemError';
    this.problem = problem;
  }

  /** As docs/errors.md lists it. */
  get code(): string {
    return this.problem.type.split(':').at(-1)!;
  }

  get errors(): readonly FieldProblem[] {
    return this.problem.errors ?? [];
  }
}

export interface RequestOptions {
  readonly body?: unknown;
  /** Raw bytes of a file, with their media type. */
  readonly file?: Blob;
  readonly type?: string;
  /** The version an update is based on. */
  readonly version?: number;
  /** The act's own key, where it outlives this request: sent again later, it still takes effect once. */
  readonly key?: string;
  /** Names long work, so that its progress can be asked for. */
  readonly job?: string;
  /** Gives the request up. */
  readonly signal?: AbortSignal;
}

/** Names this open page, so that it is not told of its own changes. */
export const PAGE_ID = crypto.randomUUID();

let csrfToken = '';
/** The session's token against forged requests; every write carries it. */
export function setCsrfToken(token: string): void {
  csrfToken = token;
}

let accountId: string | null = null;
/** Whose session it is: the server refuses writes of this page once somebody else has signed in beside it. */
export function setAccount(id: string | null): void {
  accountId = id;
}

let collectionId: string | null = null;
/** Whose collection this page shows: its writes go to no other one. */
export function setCollection(id: string | null): void {
  collectionId = id;
}

let onSignedOut = (): void => undefined;
/** Called when the server says that the session has ended. */
export function whenSignedOut(handler: () => void): void {
  onSignedOut = handler;
}

let onStale = (): Promise<boolean> => Promise.resolve(false);
/**
 * Called when this page's token is another session's: somebody signed in beside it.
 *
 * @param handler - reads the session anew; answers whether it is still the same person's
 */
export function whenStale(handler: () => Promise<boolean>): void {
  onStale = handler;
}

const RETRY_AFTER_MS = [400, 1500];

/** An act of somebody at a form: it keeps its key until the server has answered it, however often it is sent. */
export interface Act {
  key: string | null;
}
let current: Act | null = null;

/** Runs what sends an act's request. Only a request that it sends at once, not after waiting, carries the act's key. */
export function asAct<T>(act: Act, send: () => Promise<T>): Promise<T> {
  current = act;
  try {
    return send();
  } finally {
    current = null;
  }
}

const key = (): string => crypto.randomUUID();

/** The only place that talks to the server. */
export async function request<T>(method: string, path: string, options: RequestOptions = {}): Promise<T> {
  const act = method === 'GET' ? null : current;
  // The next request of the same act is another one.
  current = null;
  const isSentAgain = act !== null && act.key !== null;
  if (act) act.key ??= options.key ?? key();
  try {
    const keyed = method === 'GET' ? options : { ...options, key: act?.key ?? options.key ?? key() };
    const answer = await send<T>(method, path, keyed).catch(async (error: unknown) => {
      const isStale = error instanceof ProblemError && error.problem.type === STALE_PAGE;
      // The same person in another window: sent once more, with the session's new token.
      if (isStale && (await onStale())) return send<T>(method, path, keyed);
      throw error;
    });
    if (act) act.key = null;
    return answer;
  } catch (error) {
    if (act && !(error instanceof ProblemError && isUnanswered(error.problem))) act.key = null;
    if (isSentAgain && error instanceof ProblemError && error.problem.type === KEY_REUSED)
      throw new ProblemError({ ...error.problem, title: ARRIVED, detail: ARRIVED });
    throw error;
  }
}

/** It leaves the collection, wherever another window has gone. */
const CHOICE = '/session/collection';
const NOT_SIGNED_IN = 'not-signed-in';
const STALE_PAGE = 'urn:karyotome:problem:stale-page';
const KEY_REUSED = 'urn:karyotome:problem:key-reused';
const ARRIVED =
  'What you sent before had arrived, as it was written then; only the answer was lost. Look at what is recorded now before you send this.';

/** Nobody knows whether it took effect: the line broke, or the server could not say. */
export function isUnanswered({ status }: Problem): boolean {
  return status === 0 || status === 408 || status === 429 || status >= 500;
}

async function send<T>(method: string, path: string, options: RequestOptions): Promise<T> {
  const headers: Record<string, string> = { Accept: 'application/json' };
  if (method !== 'GET') {
    headers['Page-Id'] = PAGE_ID;
    headers['X-CSRF-Token'] = csrfToken;
    // One key per act: sent again after a lost answer, the act still takes effect once.
    if (options.key) headers['Idempotency-Key'] = options.key;
    if (accountId !== null) headers['Account-Id'] = accountId;
    if (collectionId !== null && path !== CHOICE) headers['Collection-Id'] = collectionId;
  }
  if (options.job) headers['Job-Id'] = options.job;
  if (options.version !== undefined) headers['If-Match'] = `"${options.version}"`;
  if (options.file) headers['Content-Type'] = options.type ?? options.file.type;
  else if (options.body !== undefined) headers['Content-Type'] = 'application/json';
  const body = options.file ?? (options.body === undefined ? null : JSON.stringify(options.body));
  const init = { method, headers, body, credentials: 'same-origin', signal: options.signal ?? null } as const;
  const response = await reach(`/api/v1${path}`, init);
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const problem = await readProblem(response);
  const error = new ProblemError(problem);
  // Asked who one is, being nobody is an answer.
  if (error.code === NOT_SIGNED_IN && path !== '/session') onSignedOut();
  throw error;
}

async function reach(url: string, init: RequestInit): Promise<Response> {
  for (const wait of RETRY_AFTER_MS) {
    try {
      return await fetch(url, init);
    } catch (error) {
      if (init.signal?.aborted) throw givenUp(error);
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
  try {
    return await fetch(url, init);
  } catch (error) {
    if (init.signal?.aborted) throw givenUp(error);
    throw new ProblemError({
      type: 'urn:karyotome:problem:unreachable',
      title: 'The server cannot be reached',
      status: 0,
      detail: 'The server cannot be reached. What you typed is kept: try again in a moment.',
    });
  }
}

function givenUp(cause: unknown): Error {
  const error = new ProblemError({
    type: 'urn:karyotome:problem:given-up',
    title: 'Cancelled. Nothing was kept.',
    status: 499,
  });
  error.cause = cause;
  return error;
}

async function readProblem(response: Response): Promise<Problem> {
  try {
    // Left out, it is this (RFC 9457, 3.1.1).
    const given = (await response.json()) as Omit<Problem, 'type'> & Partial<Problem>;
    return { ...given, type: given.type ?? 'about:blank' };
  } catch {
    return { type: 'about:blank', title: 'The server gave no readable answer', status: response.status };
  }
}

/**
 * Fetches the package that an address hands over, once. It is a page for people, not a route of the API.
 *
 * @param path - `/h/` and the token, of this server
 * @returns null where nothing was handed over
 */
export async function fetchHandOver(path: string): Promise<Blob | null> {
  const response = await fetch(path, { method: 'POST' }).catch(() => null);
  return response?.ok ? response.blob() : null;
}

/**
 * A published statement, and the newest of its animal before it where that is another one.
 *
 * @returns null where it cannot be fetched
 */
export async function fetchStatements(slug: string, statement: number): Promise<File[] | null> {
  const page = `/api/v1/public/${encodeURIComponent(slug)}`;
  const one = async (number: number): Promise<File | null> => {
    const response = await fetch(`${page}/statements/${number}`).catch(() => null);
    return response?.ok ? new File([await response.blob()], `Statement ${number}`) : null;
  };
  const wanted = await one(statement);
  if (!wanted) return null;
  const open = await fetch(page).catch(() => null);
  // A page that was withdrawn tells no more which is the newest.
  const newest = open?.ok ? ((await open.json()) as PublicAnimal).statements[0]?.statement : undefined;
  const newer = newest !== undefined && newest > statement ? await one(newest) : null;
  return newer ? [newer, wanted] : [wanted];
}
