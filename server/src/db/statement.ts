import { createHash } from 'node:crypto';
import type { ClientBase } from 'pg';
import type { Transaction } from 'sequelize';
import { createCache } from '../cache.ts';

/** A query as PostgreSQL takes it: values by their place. */
interface Statement {
  /** Under which a connection keeps its plan. */
  readonly name: string;
  readonly text: string;
  /** The names of the values, in order. */
  readonly names: readonly string[];
}

/** Queries differ by their text alone; those that are put together from parts have a few forms each. */
const statements = createCache<Statement>(2000);

/** A quoted text, a cast, a list, or a named value. */
const PARTS = /'(?:[^']|'')*'|::|\b(not in|in) \(:([a-zA-Z]\w*)\)|:([a-zA-Z]\w*)/g;

/**
 * Reads `:name` as the value of that name, and `in (:names)` as any of a list, which may be empty. What stands in quotes is
 * left alone, and so are casts.
 *
 * @example toStatement('select 1 from a where id in (:ids) and x = :x::int').text // "select 1 from a where id = any($1) and x = $2::int"
 */
export function toStatement(sql: string): Statement {
  const known = statements.get(sql);
  if (known) return known;
  const names: string[] = [];
  const placeOf = (name: string): string => {
    if (!names.includes(name)) names.push(name);
    return `$${names.indexOf(name) + 1}`;
  };
  const text = sql.replace(PARTS, (part, how?: string, list?: string, one?: string) => {
    if (list !== undefined) return how === 'in' ? `= any(${placeOf(list)})` : `<> all(${placeOf(list)})`;
    return one === undefined ? part : placeOf(one);
  });
  const name = createHash('sha256').update(text).digest('base64url').slice(0, 32);
  const statement = { name, text, names };
  statements.set(sql, statement);
  return statement;
}

let keepsPlans = true;

/** A pooler that gives each transaction another connection knows no plans that were kept on the last one. */
export function keepNoPlans(): void {
  keepsPlans = false;
}

/** Rows of a query over the transaction's own connection. A value that the query does not name is not sent. */
export async function rowsOf<Row extends object>(
  transaction: Transaction,
  sql: string,
  values: Readonly<Record<string, unknown>>,
): Promise<Row[]> {
  const { name, text, names } = toStatement(sql);
  const { connection } = transaction as Transaction & { readonly connection: ClientBase };
  const given = names.map((one) => {
    if (!(one in values)) throw new Error(`The query names :${one}, which was not given.`);
    return values[one];
  });
  const { rows } = await connection.query<Row>({ ...(keepsPlans ? { name } : {}), text, values: given });
  return rows;
}

/** SQL for a moment as RFC 3339 in UTC, in whole seconds. @param column - a timestamptz */
export const rfc3339 = (column: string): string =>
  `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`;
