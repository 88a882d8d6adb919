import http from 'node:http';
import { isStorable } from '@karyotome/contract';
import sharp from 'sharp';
import { Chance } from './chance.ts';
import { buildFarm, type Asker, type Farm } from './farm.ts';
import { Generator, HOSTILE_TEXT, HOSTILE_VALUES } from './generate.ts';
import { ROUTES, type RouteUnderTest } from './routes.ts';
import { watchHealth, type HealthWatch } from './watch-health.ts';

export interface FuzzOptions {
  readonly origin: string;
  readonly email: string;
  readonly password: string;
  readonly requests: number;
  readonly atOnce: number;
  readonly seed: number;
  readonly today: string;
  /** A new collection for so many requests: what is destroyed is there again. */
  readonly anew: () => Promise<{ email: string; password: string }>;
  readonly perFarm: number;
}

export interface FuzzOutcome {
  readonly sent: number;
  /** Answers by their status. */
  readonly statuses: Readonly<Record<string, number>>;
  /** Answers of 5xx that are faults, with the request that made each. */
  readonly faults: readonly string[];
  /** The slowest answer of /health meanwhile, in milliseconds. */
  readonly slowestHealth: number;
  /** What was being answered while /health was slow, the longest first. */
  readonly besideSlowHealth: readonly string[];
  /** Pages that did not answer 200 afterwards. */
  readonly brokenPages: readonly string[];
}

const agent = new http.Agent({ keepAlive: true, maxSockets: 64 });

interface Answer {
  readonly status: number;
  readonly text: string;
  readonly cookie: string | null;
}

/** One request, as it stands; nothing is set right on the way. */
export function raw(
  origin: string,
  method: string,
  path: string,
  headers: Record<string, string>,
  body: string | Buffer | null,
): Promise<Answer> {
  const { hostname, port } = new URL(origin);
  return new Promise((resolve, reject) => {
    const request = http.request(
      { hostname, port, method: method.toUpperCase(), path, headers, agent },
      (response) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('error', reject);
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            text: Buffer.concat(parts).toString('utf8'),
            cookie: response.headers['set-cookie']?.[0]?.split(';')[0] ?? null,
          }),
        );
      },
    );
    request.on('error', reject);
    request.end(body ?? undefined);
  });
}

export async function signIn(
  origin: string,
  email: string,
  password: string,
): Promise<{ ask: Asker; headers: Record<string, string> }> {
  const body = JSON.stringify({ email, password });
  const answer = await raw(origin, 'POST', '/api/v1/session', { 'Content-Type': 'application/json' }, body);
  if (answer.status !== 201) throw new Error(`Signing in: ${answer.status} ${answer.text}`);
  const { csrfToken } = JSON.parse(answer.text) as { csrfToken: string };
  const headers = { Cookie: answer.cookie!, 'X-CSRF-Token': csrfToken };
  const ask: Asker = async (method, path, sent, more = {}) => {
    const isBytes = Buffer.isBuffer(sent);
    const { status, text } = await raw(
      origin,
      method,
      `/api/v1${path}`,
      {
        ...headers,
        ...(sent === undefined || isBytes ? {} : { 'Content-Type': 'application/json' }),
        ...more,
      },
      sent === undefined ? null : isBytes ? sent : JSON.stringify(sent),
    );
    return { status, body: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text };
  };
  return { ask, headers };
}

const DRAWS = /\/(cards|labels|pictures|imports|preview|import)$/;

/** A fault is a 5xx that is not "come back in a moment". */
const isFault = (status: number): boolean => status >= 500 && status !== 503;

/** Sends requests that mean harm to every route, made from the schemas themselves, and tells what became of it. */
export async function fuzz(options: FuzzOptions): Promise<FuzzOutcome> {
  const { origin, requests, atOnce, seed, today } = options;
  const chance = new Chance(seed);
  const statuses: Record<string, number> = {};
  const faults: string[] = [];
  const brokenPages: string[] = [];
  const stopWatching = watchHealth(origin);
  const long: LongRequest[] = [];
  const pictures = await hostilePictures();
  let sent = 0;
  try {
    while (sent < requests) {
      const { email, password } = await options.anew();
      const { ask, headers } = await signIn(origin, email, password);
      const farm = await buildFarm(ask, today);
      const generator = new Generator(chance, farm.known, today);
      const target = Math.min(sent + options.perFarm, requests);
      const sendSome = async (): Promise<void> => {
        while (sent < target) {
          sent += 1;
          let route = chance.one(ROUTES);
          // What draws or decodes takes a hundred times as long: it has its turn, and not most of the time.
          if (DRAWS.test(route.path) && chance.is(0.8)) route = chance.one(ROUTES);
          if (route.isStream || (route.method === 'delete' && route.path === '/session')) continue;
          const request = compose(route, farm, generator, chance, headers, pictures);
          const began = Date.now();
          try {
            const { status, text } = await raw(
              origin,
              route.method,
              request.path,
              request.headers,
              request.body,
            );
            statuses[status] = (statuses[status] ?? 0) + 1;
            if (isFault(status))
              faults.push(
                `${route.method} ${request.path}: ${status} ${text.slice(0, 200)} for ${shown(request)}`,
              );
          } catch (error) {
            // The server may end a connection whose request it refuses to read.
            statuses['ended'] = (statuses['ended'] ?? 0) + 1;
            if (!isEnding(error)) faults.push(`${route.method} ${request.path}: ${String(error)}`);
          }
          const ended = Date.now();
          if (ended - began > LONG_MS)
            long.push({
              began,
              ended,
              what: `${route.method} ${request.path} ${shown(request).slice(0, 300)}`,
            });
        }
      };
      await Promise.all(Array.from({ length: atOnce }, sendSome));
      brokenPages.push(...(await brokenOf(ask, farm)));
    }
  } catch (error) {
    await stopWatching();
    throw error;
  }
  const health = await stopWatching();
  faults.push(...health.failures);
  const besideSlowHealth = besideSlow(health, long);
  return { sent, statuses, faults, slowestHealth: health.slowestMs, besideSlowHealth, brokenPages };
}

/** A request that took long, milliseconds since 1970. */
interface LongRequest {
  readonly began: number;
  readonly ended: number;
  readonly what: string;
}
const LONG_MS = 100;

/** What was under way while an answer of /health was slow, so that whoever reads it knows where to look. */
function besideSlow({ slow }: HealthWatch, long: readonly LongRequest[]): string[] {
  return slow
    .toSorted((a, b) => b.ms - a.ms)
    .slice(0, 5)
    .flatMap(({ at, ms }) =>
      long
        .filter(({ began, ended }) => began < at + ms && ended > at)
        .toSorted((a, b) => b.ended - b.began - (a.ended - a.began))
        .slice(0, 8)
        .map(({ began, ended, what }) => `${Math.round(ms)} ms beside ${ended - began} ms of ${what}`),
    );
}

const isEnding = (error: unknown): boolean =>
  ['ECONNRESET', 'EPIPE', 'ECONNABORTED'].includes((error as { code?: string }).code ?? '') ||
  /socket hang up|Parse Error/.test(String(error));

interface Composed {
  readonly path: string;
  readonly headers: Record<string, string>;
  readonly body: string | Buffer | null;
}

const shown = ({ headers, body }: Composed): string =>
  `${headers['If-Match'] ?? ''} ${headers['Idempotency-Key'] ?? ''} ${String(body).slice(0, 600)}`;

function compose(
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
async function hostilePictures(): Promise<Buffer[]> {
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

/** Pages that whoever is signed in looks at: whatever was accepted must not have broken one. */
async function brokenOf(ask: Asker, farm: Farm): Promise<string[]> {
  const animals = await ask('GET', '/animals');
  const ids = Array.isArray(animals.body) ? (animals.body as { id: string }[]).map(({ id }) => id) : [];
  const paths = [
    ...ROUTES.filter(
      ({ method, path, isStream, isOpen }) => method === 'get' && !path.includes(':') && !isStream && !isOpen,
    ).map(({ path }) => path),
    ...ids.slice(0, 40).map((id) => `/animals/${id}`),
    ...(farm.known['clutchId'] ?? []).flatMap((id) => [`/clutches/${id}`, `/clutches/${id}/bench`]),
    ...(farm.params['/calendar/:file'] ?? []).map((file) => `/calendar/${file}`),
  ];
  const broken: string[] = [];
  for (const path of paths) {
    const { status, body } = await ask('GET', path);
    // A calendar may have been revoked, or asked for too often.
    if (status !== 200 && !([404, 429].includes(status) && path.startsWith('/calendar/')))
      broken.push(`${path}: ${status} ${JSON.stringify(body).slice(0, 200)}`);
  }
  return broken;
}
