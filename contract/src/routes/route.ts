import type Joi from 'joi';
import type { ListRules, Page } from '../page.ts';
import type { Grant } from '../session-requests.ts';
import type { ValidateOptions } from '../validate.ts';

/**
 * What somebody must be allowed to do. `open`: anybody, also without a session. `own`: whoever is signed in, of their own
 * session. `destroy`: owners alone. The others can be granted: look; record daily work; breed and identify; move animals and
 * edit racks; publish and sell; people and rules.
 */
export type Permission = 'open' | 'own' | 'destroy' | Grant;

/** What is sent instead of JSON. */
export type FileKind = 'csv' | 'picture' | 'lineage' | 'archive';
/** Files too large for a memory: written aside as they come. */
export const STREAMED_FILES: readonly FileKind[] = ['archive'];
/** The media types that a file may be sent as. */
export const FILE_TYPES: Readonly<Record<FileKind, readonly string[]>> = {
  csv: ['text/csv', 'application/vnd.ms-excel', 'text/tab-separated-values', 'text/plain'],
  // Not JSON, which would be read before it is looked at.
  lineage: ['application/zip', 'application/octet-stream'],
  picture: ['image/jpeg', 'image/png', 'image/webp'],
  archive: ['application/zip'],
};
/** What is answered instead of JSON. */
export type AnswerFormat = 'json' | 'pdf' | 'picture' | 'calendar' | 'events' | 'package' | 'csv';

export interface RouteRules {
  /** In a word or two, as the API description has it. */
  readonly summary: string;
  readonly permission: Permission;
  readonly validation?: Pick<ValidateOptions, 'looseList'>;
  readonly file?: FileKind;
  readonly format?: AnswerFormat;
  /** A write to something that has a version: `If-Match` is needed. */
  readonly isVersioned?: boolean;
  /** Names of the query parameters it reads. */
  readonly query?: readonly string[];
  /** It answers pages of a list. */
  readonly list?: ListRules;
  /** The status of success. */
  readonly status: 200 | 201 | 204;
}

/** One address of the API: who may use it, what it takes, and what it answers. */
export interface Route<Path extends string = string, Body = unknown, Answer = unknown> extends RouteRules {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: Path;
  /** Never there: these carry the types of what it takes (its schema is in `bodies.ts`) and of what it answers. */
  readonly body?: Body;
  readonly answer?: Answer;
}

/** A route that answers pages of a list. */
export type ListRoute<Path extends string = string, Item = unknown> = Route<Path, undefined, Page<Item>> & {
  readonly list: ListRules;
};

export type BodyOf<R extends Route> = R extends Route<string, infer Body, unknown> ? Body : never;
export type AnswerOf<R extends Route> = R extends Route<string, unknown, infer Answer> ? Answer : never;

/** The parameters in an address: `/animals/:id/records` has `id`. */
export type ParamsOf<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamsOf<Rest>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;

type More = Partial<Omit<RouteRules, 'summary'>>;

/** A read of a collection. */
export const reads =
  <Answer>() =>
  <const Path extends string>(
    path: Path,
    summary: string,
    more: More = {},
  ): Route<Path, undefined, Answer> => ({
    method: 'get',
    path,
    summary,
    permission: 'view',
    status: 200,
    ...more,
  });

/** A read of a list, page by page. */
export const lists =
  <Item extends object>() =>
  <const Path extends string>(
    path: Path,
    summary: string,
    rules: {
      readonly key: keyof Item & string;
      readonly sorts?: readonly (keyof Item & string)[];
      readonly filters?: readonly (keyof Item & string)[];
      /** What else can be asked for, which is no field of an item. */
      readonly otherFilters?: readonly string[];
    },
    more: More = {},
  ): ListRoute<Path, Item> => {
    const { key, sorts = [], filters = [], otherFilters = [] } = rules;
    const list = { key, sorts, filters: [...filters, ...otherFilters] };
    const query = ['limit', 'after', 'sort', 'format', ...list.filters];
    return { ...reads<Page<Item>>()(path, summary, { query, ...more }), list };
  };

type Write = Exclude<Route['method'], 'get'>;

/** What a schema lets pass. */
type Checked<Schema> = Schema extends Joi.AnySchema<infer Body> ? Body : never;

/** A write with a body that is checked by its schema. */
export const writes =
  <Answer, Schema>() =>
  <const Path extends string>(
    method: Write,
    path: Path,
    summary: string,
    more: More = {},
  ): Route<Path, Checked<Schema>, Answer> => ({
    method,
    path,
    summary,
    permission: 'record',
    status: method === 'post' ? 201 : 200,
    ...more,
  });

/** A write to something that has a version: what it was based on goes along as `If-Match`. */
export const changes =
  <Answer, Schema>() =>
  <const Path extends string>(
    method: Write,
    path: Path,
    summary: string,
    more: More = {},
  ): Route<Path, Checked<Schema>, Answer> => ({
    ...writes<Answer, Schema>()(method, path, summary, more),
    isVersioned: true,
  });

/** A write without a JSON body. */
export const acts =
  <Answer>() =>
  <const Path extends string>(
    method: Write,
    path: Path,
    summary: string,
    more: More = {},
  ): Route<Path, undefined, Answer> => ({
    method,
    path,
    summary,
    permission: 'record',
    status: method === 'delete' ? 204 : 201,
    ...more,
  });
