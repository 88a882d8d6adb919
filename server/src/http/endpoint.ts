import {
  FILE_TYPES,
  STREAMED_FILES,
  listQuery,
  changeOf,
  type AnswerOf,
  type ChangeEvent,
  type ListQuery,
  type ListRoute,
  type Page,
  type Route,
} from '@karyotome/contract';
import express, { type Request, type RequestHandler, type Response, Router } from 'express';
import { inBackground } from '../background.ts';
import { BeginAgain, tooManyBeginnings } from '../db/begin-again.ts';
import { inferring } from '../db/turns.ts';
import { reading, writing, type Actor, type Database } from '../db/work.ts';
import { allow } from './allow.ts';
import { asked, callOf, checked, type Asked, type Call } from './asked.ts';
import { bodyLimit } from './limits.ts';
import { onceByKey, type Answer } from './once.ts';
import { allItems, sendListTable, wantsTable } from './list-table.ts';
import { cutPage, listQueryOf, pageOf } from './paging.ts';
import { sharedAnswers } from './shared-answers.ts';
import { fingerprintOf, isAnswered, keyOf } from './write-keys.ts';

/** Names the open page that sent a write: it is not told of its own change. */
const PAGE_HEADER = 'Page-Id';

/** Answers of the collection's own are for whoever asked, and for now. */
function send(response: Response, answer: Answer): void {
  response.status(answer.status).set('Cache-Control', 'no-store');
  if (answer.body === undefined) response.end();
  else response.json(answer.body);
}

export interface WriteOptions<R extends Route, Prepared> {
  /** What takes long and needs no lock: done before the write, outside its transaction, unless it was answered before. */
  readonly prepare?: (asked: Asked<R>, actor: Actor) => Promise<Prepared>;
  /** Undoes what `prepare` did where the write did not happen after all. */
  readonly discard?: (prepared: Prepared) => Promise<void>;
  /** It checks and changes a single animal: others of its like may run at once. */
  readonly isBeside?: (asked: Asked<R>) => boolean;
  /** Adds to the answer what may take long to find out; the write has happened by then. */
  readonly complete?: (asked: Asked<R>, actor: Actor, answer: AnswerOf<R>) => Promise<AnswerOf<R>>;
}

export interface ReadOptions {
  /** It waits for what is inferred: a few of these at once, so that connections are left for everything else. */
  readonly infers?: boolean;
  /**
   * Large, and the same for everybody: those who ask while it is being made, and nothing was written since, get the same one.
   * What another process wrote meanwhile may be missing in it, as if it had been asked for a moment earlier.
   */
  readonly isShared?: boolean;
}

export interface FinishedReadOptions<R extends Route, Found> extends ReadOptions {
  /** Makes the answer of what was read: outside the transaction, since it takes long. */
  readonly finish: (found: Found, asked: Asked<R>) => Promise<AnswerOf<R>>;
}

const MOST_BEGINNINGS = 6;

/** Takes a file as it is, unparsed, or leaves one that is too large to whoever answers; from whoever may not send it, not a byte. */
function readFile({ path, file, permission }: Route): RequestHandler[] {
  if (file === undefined) return [];
  const permit: RequestHandler = (request, _response, next) => {
    allow(request, permission);
    next();
  };
  if (STREAMED_FILES.includes(file)) return [permit];
  return [permit, express.raw({ type: [...FILE_TYPES[file]], limit: bodyLimit(path) })];
}

/**
 * Serves routes of the table: permission, transaction, idempotency, answer. What is answered must be what the table says.
 *
 * @param onChange - called for every write, once it is committed
 * @param settle - what follows from a write, for which nobody waits; where it fails the write stands all the same
 */
export function createEndpoints(
  database: Database,
  onChange: (collectionId: string, change: ChangeEvent & { readonly page: string | null }) => void,
  settle: (actor: Actor) => Promise<void> = () => Promise.resolve(),
) {
  const router = Router();
  const register = (route: Route, handler: RequestHandler): void => {
    router[route.method](route.path, ...readFile(route), handler);
  };
  /** Counts the writes of each collection. */
  const writes = new Map<string, number>();
  const shared = sharedAnswers();
  function read<R extends Route>(
    route: R,
    run: (call: Call<R>) => Promise<AnswerOf<R>>,
    options?: ReadOptions,
  ): void;
  function read<R extends Route, Found>(
    route: R,
    run: (call: Call<R>) => Promise<Found>,
    options: FinishedReadOptions<R, Found>,
  ): void;
  function read<R extends Route, Found>(
    route: R,
    run: (call: Call<R>) => Promise<Found>,
    { infers, isShared, finish }: ReadOptions & Partial<FinishedReadOptions<R, Found>> = {},
  ): void {
    register(route, async (request, response) => {
      const actor = allow(request, route.permission);
      const ask = (): Promise<Found> => reading(database, actor, (work) => run(callOf(route, request, work)));
      const make = async (): Promise<unknown> => {
        const found = await (infers ? inferring.take(ask) : ask());
        return finish ? finish(found, asked(route, request)) : found;
      };
      if (!isShared) return send(response, { status: route.status, body: await make() });
      const written = writes.get(actor.collectionId) ?? 0;
      const { bytes, etag } = await shared(`${actor.collectionId} ${written} ${request.originalUrl}`, make);
      // Not `send`: it would digest megabytes for an ETag once for each who asked.
      response.set('Cache-Control', 'no-store').set('ETag', etag).type('json');
      if (request.fresh) response.status(304).end();
      else response.end(bytes);
    });
  }
  /** A read that is answered page by page. */
  function readPages<R extends ListRoute, Item extends object>(
    route: R & ListRoute<string, Item>,
    page: (call: Call<R>, query: ListQuery) => Promise<Page<Item>>,
    options: Pick<ReadOptions, 'infers'> = {},
  ): void {
    const schema = listQuery(route.list);
    const queryOf = (request: Request): ListQuery => checked(schema, listQueryOf(request));
    register(route, async (request, response, next) => {
      if (!wantsTable(request)) return next();
      const actor = allow(request, route.permission);
      const items = await reading(database, actor, (work) => {
        const call = callOf(route, request, work);
        return allItems((query) => page(call, query), queryOf(request));
      });
      sendListTable(response, route.path, items);
    });
    const run = (call: Call<R>): Promise<Page<Item>> => page(call, queryOf(call.request));
    read(route, run as (call: Call<R>) => Promise<AnswerOf<R>>, options);
  }
  return {
    router,
    read,
    /** A read of a list whose pages the database cuts. */
    listPage: readPages,
    /** A read of a list: what is found is answered page by page. */
    list<R extends ListRoute, Item extends object>(
      route: R & ListRoute<string, Item>,
      run: (call: Call<R>) => Promise<readonly Item[]>,
      options: Pick<ReadOptions, 'infers'> = {},
    ): void {
      readPages(route, async (call, query) => pageOf(await run(call), route.list, query), options);
    },
    /**
     * A read of a list whose items are found by little, and shown by much: what is shown is read for the page alone.
     *
     * @param find - all items, in order, with what they are told apart, filtered and sorted by
     * @param show - the items of a page
     */
    listBy<R extends ListRoute, Item extends object, Light extends object>(
      route: R & ListRoute<string, Item>,
      find: (call: Call<R>) => Promise<readonly Light[]>,
      show: (call: Call<R>, page: readonly Light[]) => Promise<Item[]>,
    ): void {
      readPages(route, async (call, query) => {
        const found = pageOf(await find(call), route.list, query);
        return { ...found, items: await show(call, found.items) };
      });
    },
    /**
     * The same of a list that the database sorts and filters.
     *
     * @param find - the keys of all items that were asked for, in the order that was asked for
     */
    listByKey<R extends ListRoute, Item extends object>(
      route: R & ListRoute<string, Item>,
      find: (call: Call<R>, query: ListQuery) => Promise<readonly string[]>,
      show: (call: Call<R>, page: readonly string[]) => Promise<Item[]>,
    ): void {
      readPages(route, async (call, query) => {
        const found = cutPage(await find(call, query), (key) => key, query);
        return { ...found, items: await show(call, found.items) };
      });
    },
    /** A write takes effect once per Idempotency-Key: a repetition is answered from the first one's record. */
    write<R extends Route, Prepared = undefined>(
      route: R,
      run: (call: Call<R>, prepared: Prepared) => Promise<AnswerOf<R>>,
      { complete, ...options }: WriteOptions<R, Prepared> = {},
    ): void {
      register(route, async (request, response) => {
        const actor = allow(request, route.permission);
        const answer = await writeOnce(database, actor, route, request, run, options);
        inBackground(() => settle(actor), database.onFault);
        writes.set(actor.collectionId, (writes.get(actor.collectionId) ?? 0) + 1);
        const change = changeOf(route, request.params['id'] as string | undefined, request.body);
        onChange(actor.collectionId, { ...change, page: request.get(PAGE_HEADER) ?? null });
        if (!complete) return send(response, answer);
        const body = await complete(asked(route, request), actor, answer.body as AnswerOf<R>);
        send(response, { ...answer, body });
      });
    },
    /** Files, streams, and what belongs to the session itself: answered by hand, after the same check. */
    answer(
      route: Route,
      handler: (request: Request, response: Response, actor: Actor) => Promise<void> | void,
    ): void {
      register(route, (request, response) => handler(request, response, allow(request, route.permission)));
    },
  };
}

async function writeOnce<R extends Route, Prepared>(
  database: Database,
  actor: Actor,
  route: R,
  request: Request,
  run: (call: Call<R>, prepared: Prepared) => Promise<AnswerOf<R>>,
  { prepare, discard, isBeside }: Pick<WriteOptions<R, Prepared>, 'prepare' | 'discard' | 'isBeside'>,
): Promise<Answer> {
  const key = keyOf(request);
  const beside = isBeside?.(asked(route, request)) ?? false;
  for (let beginning = 1; ; beginning++) {
    const isPrepared = prepare !== undefined && !(key !== null && (await isAnswered(database, actor, key)));
    const prepared = isPrepared ? await prepare(asked(route, request), actor) : (undefined as Prepared);
    const progress = { isUsed: false };
    try {
      const answer = await writing(
        database,
        actor,
        async (work) => {
          progress.isUsed = false;
          const act = async (): Promise<Answer> => {
            progress.isUsed = true;
            const body = await run(callOf(route, request, work), prepared);
            return body === undefined ? { status: route.status } : { status: route.status, body };
          };
          return key === null ? act() : onceByKey(work, key, fingerprintOf(request), act);
        },
        { beside },
      );
      if (isPrepared && !progress.isUsed) await discard?.(prepared);
      return answer;
    } catch (error) {
      if (isPrepared) await discard?.(prepared);
      if (!(error instanceof BeginAgain)) throw error;
      if (beginning === MOST_BEGINNINGS) throw tooManyBeginnings(error);
      await error.meanwhile();
    }
  }
}

export type Endpoints = ReturnType<typeof createEndpoints>;
