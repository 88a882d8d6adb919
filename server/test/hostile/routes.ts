import { bodySchemaOf, ROUTES as TABLE, type FileKind, type Route } from '@karyotome/contract';
import type { Express } from 'express';
import type Joi from 'joi';

/** What an address takes, for requests to be generated from: of the table that the server registers from. */
export interface RouteUnderTest {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: string;
  readonly schema?: Joi.Schema;
  readonly file?: FileKind;
  /** Asked without a session. */
  readonly isOpen?: boolean;
  /** An answer that does not end by itself. */
  readonly isStream?: boolean;
}

export const ROUTES: readonly RouteUnderTest[] = Object.values<Route>(TABLE).map((route) => {
  const { method, path, permission, file, format } = route;
  const schema = bodySchemaOf(route);
  return {
    method,
    path,
    ...(schema ? { schema } : {}),
    ...(file ? { file } : {}),
    isOpen: permission === 'open',
    isStream: format === 'events',
  };
});

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  readonly handle: { readonly stack?: readonly Layer[] };
}

/** Every route the application has, as `get /animals/:id`. */
export function routesOf(app: Express): string[] {
  const visit = (layers: readonly Layer[]): string[] =>
    layers.flatMap(({ route, handle }) =>
      route
        ? Object.keys(route.methods).map((method) => `${method} ${route.path}`)
        : handle.stack
          ? visit(handle.stack)
          : [],
    );
  return visit((app as unknown as { router: { stack: readonly Layer[] } }).router.stack);
}
