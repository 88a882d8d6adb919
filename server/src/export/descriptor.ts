import type { Column, Table } from './tables.queries.ts';

/*
 * The description of exported tables by which programs read them: a Data Package (specs.frictionlessdata.io, version 1) with a
 * Table Schema for each table.
 */

interface Field {
  readonly name: string;
  readonly type: string;
  readonly format?: string;
  readonly description?: string;
  readonly constraints?: { readonly required: true };
}

/** Columns that hold a list in JSON; other JSON is an object. */
const LISTS: ReadonlySet<string> = new Set([
  'clutch_sortings.groups',
  'egg_events.signs',
  'letters.paragraphs',
  'offers.picture_ids',
  'opinion_links.animal_ids',
  'projects.targets',
  'publications.withheld_changes',
]);

function typeOf(table: string, { name, type }: Column): Pick<Field, 'type' | 'format'> {
  if (type.startsWith('_')) return { type: 'array' };
  switch (type) {
    case 'uuid':
      return { type: 'string', format: 'uuid' };
    case 'int2':
    case 'int4':
    case 'int8':
      return { type: 'integer' };
    case 'float4':
    case 'float8':
    case 'numeric':
      return { type: 'number' };
    case 'bool':
      return { type: 'boolean' };
    case 'date':
      return { type: 'date' };
    case 'timestamptz':
      return { type: 'datetime', format: 'any' };
    case 'json':
    case 'jsonb':
      return { type: LISTS.has(`${table}.${name}`) ? 'array' : 'object' };
    default:
      return { type: 'string' };
  }
}

/** The unit, where the name says it. */
function unitOf({ name, type }: Column): string | null {
  if (/(^|_)g$/.test(name)) return 'grams';
  if (/(^|_)c$|^celsius$/.test(name)) return 'degrees Celsius';
  if (name === 'humidity' || name === 'low_humidity') return 'per cent relative humidity';
  if (type === 'timestamptz') return 'RFC 3339, UTC';
  return type === 'date' ? "a day of the farm's calendar" : null;
}

const fieldOf = (table: string, column: Column): Field => {
  const unit = unitOf(column);
  return {
    name: column.name,
    ...typeOf(table, column),
    ...(unit === null ? {} : { description: unit }),
    // Nothing and an empty text are written alike, and a required text may be empty.
    ...(column.isRequired && column.type !== 'text' ? { constraints: { required: true } } : {}),
  };
};

/** @param tables - in the export, with the table of people */
export function describePackage(name: string, at: string, tables: readonly Table[]): object {
  const known = new Map(tables.map((table) => [table.name, table]));
  return {
    profile: 'data-package',
    name: 'karyotome-collection',
    title: name,
    created: at,
    resources: tables.map((table) => ({
      profile: 'tabular-data-resource',
      name: table.name.replaceAll('_', '-'),
      path: pathOf(table.name),
      format: 'csv',
      mediatype: 'text/csv',
      encoding: 'utf-8',
      schema: {
        fields: table.columns.map((column) => fieldOf(table.name, column)),
        missingValues: [''],
        ...(table.key.length === 0 ? {} : { primaryKey: table.key }),
        ...orNothing(foreignKeysOf(table, known)),
      },
    })),
  };
}

/** A list of keys must not be empty. */
const orNothing = (foreignKeys: readonly object[]): object =>
  foreignKeys.length === 0 ? {} : { foreignKeys };

/** Keys of which every column is exported, on both sides. */
const foreignKeysOf = (table: Table, known: ReadonlyMap<string, Table>): object[] =>
  table.references
    .filter((reference) => isWhole(reference.columns, table) && known.has(reference.table))
    .filter((reference) => isWhole(reference.keys, known.get(reference.table)!))
    .map(({ columns, table: other, keys }) => ({
      fields: columns,
      reference: { resource: other.replaceAll('_', '-'), fields: keys },
    }));

export const pathOf = (table: string): string => `tables/${table}.csv`;

const isWhole = (columns: readonly string[], table: Table): boolean =>
  columns.every((name) => table.columns.some((column) => column.name === name));
