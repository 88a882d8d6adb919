import { isStorable } from '@karyotome/contract';
import sharp from 'sharp';
import { Chance } from './chance.ts';
import type { Farm } from './farm.ts';
import { Generator, HOSTILE_TEXT, HOSTILE_VALUES } from './generate.ts';
import type { RouteUnderTest } from './routes.ts';

export const DRAWS = /\/(cards|labels|pictures|imports|preview|import)$/;

export interface Composed {
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body: string | Buffer | null;
}

export function compose(
  route: RouteUnderTest,
  farm: Farm,
  generator: Generator,
  chance: Chance,
  session: Record<string, string>,
  pictures: readonly Buffer[],
): Composed {
  const isHostile = chance.is(0.6);
  const headers: Record<string, string> = { ...(route.isOpen ? {} : session) };
  if (chance.is(0.5))
    headers['If-Match'] = chance.is(0.8) ? `"${chance.whole(1, 4)}"` : chance.one(ODD_VERSIONS);
  if (chance.is(0.4))
    headers['Idempotency-Key'] = chance.is(0.8) ? `key-of-${chance.whole(1, 400)}` : chance.one(ODD_KEYS);
  const path = pathOf(route.path, farm, chance);
  if (route.file === 'csv') {
    headers['Content-Type'] = chance.is(0.9) ? 'text/csv' : 'application/json';
    return { path, headers, body: hostileCsv(chance, route.path.includes('readings')) };
  }
  if (route.file === 'picture') {
    headers['Content-Type'] = chance.one(['image/png', 'image/jpeg', 'image/webp', 'image/svg+xml']);
    return { path, headers, body: chance.one(pictures) };
  }
  if (route.file === 'lineage') {
    headers['Content-Type'] = chance.one(['application/zip', 'application/octet-stream', 'application/json']);
    const documents = [
      '{}',
      '[',
      '{"a":1,"a":2}',
      'PK\u0003\u0004',
      '{"credentialSubject":{"format":"karyotome-lineage/1"}}',
    ];
    return { path, headers, body: Buffer.from(chance.one(documents)) };
  }
  if (!route.schema) return { path, headers, body: null };
  headers['Content-Type'] = chance.is(0.97)
    ? 'application/json'
    : chance.one(['text/plain', 'application/json; charset=utf-32', 'application/x-www-form-urlencoded']);
  if (chance.is(0.02)) return { path, headers, body: chance.one(BROKEN_JSON) };
  return {
    path,
    headers,
    body: isHostile ? generator.hostileBody(route.schema) : generator.body(route.schema),
  };
}

const ODD_VERSIONS = ['"0"', '"999999999"', '*', 'W/"1"', '""', '"-1"', '1', '"1", "2"'];

const ODD_KEYS = ['short', 'x'.repeat(201), 'with space in it', '____proto__', 'constructor'];

const BROKEN_JSON = [
  '',
  '{',
  '{"a":',
  '[1,2',
  '"text"',
  'null',
  '42',
  '{"a":1}{"b":2}',
  '\ufeff{}',
  '{"a":\\u0000}',
];

function pathOf(template: string, farm: Farm, chance: Chance): string {
  const prefix = Object.keys(farm.params)
    .filter((known) => template.startsWith(known))
    .toSorted((a, b) => b.length - a.length)[0];
  const known = prefix === undefined ? [] : farm.params[prefix]!;
  let isFirst = true;
  const path = template.replace(/:(\w+)/g, (_, name: string) => {
    const isKnown = isFirst && known.length > 0 && chance.is(0.85);
    isFirst = false;
    if (isKnown) return chance.one(known);
    if (name === 'locus') return chance.one(['clown', 'pastel', 'constructor', 'x']);
    if (name === 'allele') return chance.one(['clown', 'pastel', '__proto__', '%00']);
    const text = chance.one(HOSTILE_TEXT);
    return isStorable(text) && text !== '' ? encodeURIComponent(text) : '%ff';
  });
  if (!chance.is(0.1)) return `/api/v1${path}`;
  const value = (JSON.stringify(chance.one(HOSTILE_VALUES)) ?? '').slice(0, 100);
  const query = chance.one([
    'limit',
    'generations',
    'locus',
    'copy',
    'caption',
    'timeZone',
    'a[b]',
    '__proto__',
  ]);
  return `/api/v1${path}?${query}=${isStorable(value) ? encodeURIComponent(value) : '%ed%a0%80'}`;
}

function hostileCsv(chance: Chance, isLogger: boolean): string | Buffer {
  const kind = chance.whole(0, 6);
  const header = isLogger ? 'time,temperature,humidity' : 'number,sex,genes,weight,dam,sire';
  if (kind === 0) return Buffer.from([0xff, 0xfe, 0x00, 0x41, 0x0a, 0x00]);
  if (kind === 1) return `${header}\n"never closed\n`;
  if (kind === 2) return Array.from({ length: 80 }, (_, i) => `column ${i}`).join(',') + '\n1\n';
  if (kind === 3) return `${header}\n${'1'.repeat(50_000)}${' '.repeat(30_000)}g\n`;
  if (kind === 4) return `${'('.repeat(20_000)}temperature,time\n1,2\n`;
  const rows = Array.from({ length: chance.whole(1, 30) }, () =>
    isLogger
      ? `2026-05-${chance.whole(1, 31)} ${chance.whole(0, 30)}:00,${chance.whole(-300, 300)},${chance.one(HOSTILE_TEXT)}`
      : [
          `c${chance.whole(1, 1_000_000)}`,
          chance.one(['male', 'female', 'constructor', '?']),
          chance.one(['Pastel', 'het Clown', 'constructor Pastel', 'xyzzy'.repeat(30)]),
          chance.one(['120', '120 g', '1e999', '', '-1']),
          '',
          '',
        ].join(','),
  );
  return `${header}\n${rows.join('\n')}\n`;
}

/** Files that say they are pictures. */
export async function hostilePictures(): Promise<Buffer[]> {
  const create = { width: 60, height: 40, channels: 3, background: '#987' } as const;
  const [png, jpeg, webp] = await Promise.all([
    sharp({ create }).png().toBuffer(),
    sharp({ create }).jpeg().toBuffer(),
    sharp({ create }).webp().toBuffer(),
  ]);
  // The width and height of a PNG stand in its first chunk; its checksum is left as it was.
  const huge = Buffer.from(png);
  huge.writeUInt32BE(60_000, 16);
  huge.writeUInt32BE(60_000, 20);
  return [
    png,
    jpeg,
    webp,
    huge,
    png.subarray(0, png.length - 20),
    jpeg.subarray(0, 100),
    Buffer.concat([jpeg.subarray(0, 20), Buffer.alloc(5_000, 0xff)]),
    Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><image href="/etc/passwd"/></svg>'),
    Buffer.from('GIF89a\x01\x00\x01\x00'),
    Buffer.alloc(0),
    Buffer.alloc(2_000),
    Buffer.from('%PDF-1.4'),
  ];
}
