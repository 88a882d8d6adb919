import type Joi from 'joi';
import type { Chance } from './chance.ts';

/*
 * Values made from a schema's own description: mostly what it takes, so that a request gets as far as it can, with something
 * hostile in it now and then.
 */

interface Described {
  readonly type: string;
  readonly keys?: Readonly<Record<string, Described>>;
  readonly items?: readonly Described[];
  readonly patterns?: readonly { readonly rule: Described }[];
  readonly rules?: readonly { readonly name: string; readonly args?: { readonly limit?: unknown } }[];
  readonly allow?: readonly unknown[];
  readonly flags?: { readonly only?: boolean; readonly presence?: string };
  readonly whens?: readonly When[];
  readonly matches?: readonly (When & { readonly schema?: Described })[];
}
interface When {
  readonly ref?: { readonly path: readonly string[] };
  readonly is?: Described;
  readonly then?: Described;
  readonly otherwise?: Described;
  readonly switch?: readonly {
    readonly is: Described;
    readonly then?: Described;
    readonly otherwise?: Described;
  }[];
}

/** Ids of what there is in the collection, by the field that names it. */
export type Known = Readonly<Record<string, readonly string[]>>;

const NUL = '\0';
const LONE = '\ud800';

export const HOSTILE_TEXT: readonly string[] = [
  '',
  ' ',
  NUL,
  `a${NUL}b`,
  LONE,
  `x${LONE}y`,
  '\udfff',
  'constructor',
  '__proto__',
  'toString',
  'hasOwnProperty',
  '\u202e\u2066',
  '\u0001\u001f\u007f',
  "'; drop table animals; --",
  ':collectionId',
  '$1',
  '%00',
  '../../etc/passwd',
  '0000-01-01',
  '9999-12-31',
  '10000-01-01',
  '2026-02-30',
  '2026-11-28T10:00:00+16:00',
  '0000-01-01T00:00:00Z',
  '2026-11-28T25:61:61Z',
  '00000000-0000-0000-0000-000000000000',
  '[0b1d2c3e-1111-4111-8111-111111111111]',
  '(0b1d2c3e-1111-4111-8111-111111111111)',
  '0B1D2C3E-1111-4111-8111-111111111111',
  '0b:1d:2c:3e:11:11:41:11:81:11:11:11:11:11:11:11',
  'é'.normalize('NFD'),
  '🐍'.repeat(50),
  'x'.repeat(300),
  'x'.repeat(5_000),
  'constructor Pastel',
  'het '.repeat(60),
  '((((((((((',
  '66% 33% het super possible',
];

export const HOSTILE_VALUES: readonly unknown[] = [
  null,
  true,
  false,
  0,
  -0,
  -1,
  1e308,
  -1e308,
  5e-324,
  1e-320,
  0.1 + 0.2,
  2 ** 53,
  2 ** 31,
  -(2 ** 63),
  [],
  {},
  [null],
  [[]],
  [{}],
  { toString: 1 },
  { length: 5 },
  { valueOf: null },
  Array.from({ length: 40 }, () => ({})),
  Array.from({ length: 300 }, () => null),
  ...HOSTILE_TEXT,
];

const GENES = [
  'Pastel',
  'Clown',
  'het Clown',
  '66% het Pied',
  'Pastel Enchi',
  'Normal',
  'Spider',
  'Banana',
  'Freeway',
];
const WORDS = ['Juniper', 'Left', 'Ida', 'Paper', 'a note', 'because', 'Upper shelf', 'north'];

export class Generator {
  readonly #chance: Chance;
  readonly #known: Known;
  readonly #today: string;

  constructor(chance: Chance, known: Known, today: string) {
    this.#chance = chance;
    this.#known = known;
    this.#today = today;
  }

  /** A body for a schema, as JSON. */
  body(schema: Joi.Schema): string {
    return JSON.stringify(this.#of(schema.describe() as Described, 'body', {}));
  }

  /** The same with something in it that nobody should send. */
  hostileBody(schema: Joi.Schema): string {
    // Deeper than any program can write it by itself.
    if (this.#chance.is(0.03)) return nestedText(this.#chance.whole(17, 20_000));
    let body = this.#of(schema.describe() as Described, 'body', {});
    const times = this.#chance.whole(1, 3);
    for (let i = 0; i < times; i++) body = this.#spoil(body);
    return JSON.stringify(body) ?? 'null';
  }

  #of(described: Described, name: string, siblings: Readonly<Record<string, unknown>>): unknown {
    const chance = this.#chance;
    const when = described.whens?.[0];
    if (when) {
      const chosen = this.#choose(when, siblings);
      if (chosen && chosen.type !== 'any')
        return this.#of({ ...chosen, flags: { ...chosen.flags } }, name, siblings);
    }
    if (described.allow && (described.flags?.only || chance.is(0.1))) return chance.one(described.allow);
    switch (described.type) {
      case 'object':
        return this.#object(described);
      case 'array': {
        const [item] = described.items ?? [];
        return Array.from({ length: chance.whole(1, 4) }, () => (item ? this.#of(item, name, {}) : {}));
      }
      case 'alternatives': {
        const [match] = described.matches ?? [];
        const cases = match?.switch ?? [];
        const picked = chance.one(cases);
        return picked?.then ? this.#of(picked.then, name, {}) : {};
      }
      case 'number':
        return this.#number(described);
      case 'boolean':
        return chance.is(0.5);
      case 'string':
        return this.#text(name);
      default:
        // An entry of a round: whatever one is.
        return this.#entry();
    }
  }

  #choose(when: When, siblings: Readonly<Record<string, unknown>>): Described | undefined {
    const value = siblings[when.ref?.path[0] ?? ''];
    const cases = when.switch ?? [{ is: when.is!, ...when }];
    for (const { is, then } of cases) if (is?.allow?.includes(value)) return then;
    return undefined;
  }

  #object({ keys = {}, patterns }: Described): Record<string, unknown> {
    const made: Record<string, unknown> = {};
    for (const [key, described] of Object.entries(keys)) {
      if (described.flags?.presence !== 'required' && this.#chance.is(0.4)) continue;
      made[key] = this.#of(described, key, made);
    }
    const [pattern] = patterns ?? [];
    if (pattern && this.#chance.is(0.5)) made[this.#text('marker')] = this.#of(pattern.rule, 'marker', {});
    return made;
  }

  #number({ rules = [] }: Described): number {
    const limit = (name: string): number | undefined => {
      const found = rules.find((rule) => rule.name === name)?.args?.limit;
      return typeof found === 'number' ? found : undefined;
    };
    const low = limit('min') ?? 0;
    const high = limit('max') ?? low + 100;
    const value = low + this.#chance.next() * (high - low);
    return rules.some(({ name }) => name === 'integer') ? Math.round(value) : Math.round(value * 100) / 100;
  }

  #text(name: string): string {
    const chance = this.#chance;
    const ids = this.#known[name.replace(/s$/, '')] ?? this.#known[name];
    if (ids && ids.length > 0 && chance.is(0.9)) return chance.one(ids);
    if (/^on$|On$|^startedOn/.test(name)) return this.#day();
    if (name === 'at') return `${this.#day()}T10:00:00Z`;
    if (name === 'genes') return chance.one(GENES);
    if (name === 'number') return `N${chance.whole(1, 1_000_000)}`;
    if (name === 'email') return 'nobody@example.test';
    if (name === 'timeZone') return chance.one(['Europe/Berlin', 'Pacific/Honolulu', 'UTC']);
    if (/[kK]ey$/.test(name)) return `key-${chance.whole(1, 1_000_000)}`;
    return chance.one(WORDS);
  }

  #day(): string {
    const back = this.#chance.whole(0, 400);
    return new Date(Date.parse(`${this.#today}T00:00:00Z`) - back * 86_400_000).toISOString().slice(0, 10);
  }

  #entry(): unknown {
    const chance = this.#chance;
    const key = `entry-${chance.whole(1, 1_000_000_000)}`;
    if (chance.is(0.2)) return { key, undo: `entry-${chance.whole(1, 1_000_000_000)}` };
    return {
      key,
      animalId: this.#text('animalId'),
      record: { kind: 'care', on: this.#day(), body: { act: chance.one(['cleaned', 'soaked', 'pushing']) } },
    };
  }

  /** Puts one hostile thing somewhere into a value. */
  #spoil(value: unknown): unknown {
    const chance = this.#chance;
    const places = placesIn(value);
    const place = chance.one(places);
    const kind = chance.whole(0, 7);
    if (place === undefined) return structuredClone(chance.one(HOSTILE_VALUES));
    const { holder, key } = place;
    if (kind === 1 && !Array.isArray(holder)) {
      holder[chance.one(HOSTILE_TEXT)] = structuredClone(chance.one(HOSTILE_VALUES));
    } else if (kind === 2) {
      delete holder[key];
    } else if (kind === 3) {
      holder[key] = nested(chance.whole(2, 40), holder[key]);
    } else if (kind === 4) {
      const before = holder[key];
      holder[key] = Array.from({ length: chance.whole(2, 1_500) }, () => structuredClone(before));
    } else holder[key] = structuredClone(chance.one(HOSTILE_VALUES));
    return value;
  }
}

type Holder = Record<string, unknown>;

function placesIn(value: unknown): { holder: Holder; key: string }[] {
  if (typeof value !== 'object' || value === null) return [];
  return Object.keys(value).flatMap((key) => [
    { holder: value as Holder, key },
    ...placesIn((value as Holder)[key]),
  ]);
}

function nestedText(levels: number): string {
  return '{"a":['.repeat(levels) + 'null' + ']}'.repeat(levels);
}

/** A value so many lists or objects deep. */
function nested(levels: number, value: unknown): unknown {
  let made = value;
  for (let i = 0; i < levels; i++) made = i % 2 === 0 ? [made] : { a: made };
  return made;
}
