import type { Page } from '@karyotome/contract';
import { Chance } from './chance.ts';
import { compose, type Composed, DRAWS, hostilePictures } from './compose-request.ts';
import { type Asker, buildFarm, type Farm } from './farm.ts';
import { Generator } from './generate.ts';
import { raw, signIn } from './raw-request.ts';
import { ROUTES } from './routes.ts';
import { type HealthWatch, watchHealth } from './watch-health.ts';

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
  /** Called when a collection has had its requests. */
  readonly onFarmDone?: () => void;
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
    // Before anything hostile: sign-ins that fail are among it, and after enough of them nobody signs in from here.
    const sessions: Awaited<ReturnType<typeof signIn>>[] = [];
    for (let farms = 0; farms < Math.ceil(requests / options.perFarm); farms++) {
      const { email, password } = await options.anew();
      sessions.push(await signIn(origin, email, password));
    }
    for (const { ask, headers } of sessions) {
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
      options.onFarmDone?.();
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

const shown = ({ headers, body }: Composed): string =>
  `${headers['If-Match'] ?? ''} ${headers['Idempotency-Key'] ?? ''} ${String(body).slice(0, 600)}`;

/** Pages that whoever is signed in looks at: whatever was accepted must not have broken one. */
async function brokenOf(ask: Asker, farm: Farm): Promise<string[]> {
  const animals = await ask('GET', '/animals');
  const ids = ((animals.body as Partial<Page<{ id: string }>>).items ?? []).map(({ id }) => id);
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
