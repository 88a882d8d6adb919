import type { Route } from '@karyotome/contract';
import type { RequestHandler, Router } from 'express';

/** Registers a route of the table that needs no session. */
export function openRoute(
  router: Pick<Router, Route['method']>,
  { method, path }: Route,
  ...handlers: RequestHandler[]
): void {
  router[method](path, ...handlers);
}
