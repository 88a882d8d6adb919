import {
  PAGE_SIZE,
  type AnswerOf,
  type BodyOf,
  type ListRoute,
  type Page,
  type ParamsOf,
  type Route,
} from '@karyotome/contract';
import { isUnanswered, ProblemError, request, type RequestOptions } from './client.ts';
import { noteWritten } from './written.ts';

/** Long work has a name, by which its progress is asked for, and can be given up. */
export interface LongWork {
  readonly job: string;
  readonly signal: AbortSignal;
}

/** What goes along with a request, as far as the table of routes says that it does. */
export type CallOptions<R extends Route> = Omit<RequestOptions, 'body'> & {
  readonly query?: Readonly<Record<string, string>>;
} & ([ParamsOf<R['path']>] extends [never]
    ? unknown
    : { readonly params: Readonly<Record<ParamsOf<R['path']>, string>> }) &
  (BodyOf<R> extends undefined ? unknown : { readonly body: BodyOf<R> });

/** The address of a route, under which a browser finds it. */
export function addressOf<R extends Route>(
  { path }: R,
  params: Readonly<Record<string, string>>,
  query: Readonly<Record<string, string>> = {},
): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name] ?? ''));
  const asked = new URLSearchParams(query).toString();
  return asked === '' ? filled : `${filled}?${asked}`;
}

/** The same for what a page links to or shows, outside of a request. */
export const urlOf = <R extends Route>(
  route: R,
  params: Readonly<Record<ParamsOf<R['path']>, string>>,
  query: Readonly<Record<string, string>> = {},
): string => `/api/v1${addressOf(route, params, query)}`;

/** Asks one route of the table; its answer has the type that the table says. */
export function call<R extends Route>(route: R, options: CallOptions<R>): Promise<AnswerOf<R>> {
  const {
    params = {},
    query,
    ...rest
  } = options as RequestOptions & {
    params?: Readonly<Record<string, string>>;
    query?: Readonly<Record<string, string>>;
  };
  const note = (): void => noteWritten(route, params['id'], rest.body);
  const answer = request<AnswerOf<R>>(route.method.toUpperCase(), addressOf(route, params, query), rest);
  return route.method === 'get'
    ? answer
    : answer.then(
        (value) => {
          note();
          return value;
        },
        (error: unknown) => {
          // Nobody knows whether it took effect.
          if (error instanceof ProblemError && isUnanswered(error.problem)) note();
          throw error;
        },
      );
}

/** A whole list, page after page. @param given - the address's parameters, and what is filtered by */
export async function callAll<Path extends string, Item>(
  route: ListRoute<Path, Item>,
  ...given: [ParamsOf<Path>] extends [never]
    ? [params?: Readonly<Record<never, never>>, filter?: Readonly<Record<string, string>>]
    : [params: Readonly<Record<ParamsOf<Path>, string>>, filter?: Readonly<Record<string, string>>]
): Promise<Item[]> {
  const [params = {}, filter = {}] = given as Readonly<Record<string, string>>[];
  const items: Item[] = [];
  let after: string | null = null;
  do {
    const query: Record<string, string> = {
      ...filter,
      limit: String(PAGE_SIZE.most),
      ...(after === null ? {} : { after }),
    };
    const page: Page<Item> = await request<Page<Item>>('GET', addressOf(route, params, query), {});
    items.push(...page.items);
    after = page.next;
  } while (after !== null);
  return items;
}
