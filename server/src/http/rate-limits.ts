import { createHash } from 'node:crypto';
import type { Request, RequestHandler } from 'express';
import type pg from 'pg';
import { RateLimiterMemory, RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { Refusal } from '../refusal.ts';

/*
 * How often an address without an account may be asked, counted in the database so that a restart forgets nothing and several
 * servers count together: by whoever asks, and by what is asked for, so that many askers cannot wear one target down.
 */

export interface Rate {
  readonly points: number;
  /** Seconds. */
  readonly duration: number;
}

/** How long somebody waits after failures. */
export interface Delay {
  /** So many failures of a day cost nothing. */
  readonly free: number;
  readonly firstS: number;
  readonly longestS: number;
}

const FAILURES: Rate = { points: 1_000_000, duration: 86_400 };
/** Blocked for a time of its own each time. */
const WAIT: Rate = { points: 1, duration: 3600 };

/** Where each rate is named, it is told in docs/architecture.md. */
export const RATES = {
  page: { byAddress: { points: 240, duration: 60 }, byTarget: { points: 1200, duration: 60 } },
  picture: { byAddress: { points: 600, duration: 60 }, byTarget: { points: 3000, duration: 60 } },
  calendar: { byAddress: { points: 60, duration: 60 }, byTarget: { points: 60, duration: 60 } },
  inquiry: { byAddress: { points: 5, duration: 600 }, byTarget: { points: 60, duration: 3600 } },
  opinion: { byAddress: { points: 120, duration: 60 }, byTarget: { points: 240, duration: 60 } },
} as const satisfies Record<string, { byAddress: Rate; byTarget: Rate }>;

export class RateLimits {
  readonly #pool: pg.Pool;
  readonly #limiters = new Map<string, RateLimiterPostgres>();

  constructor(pool: pg.Pool) {
    this.#pool = pool;
  }

  #limiter(name: string, { points, duration }: Rate): RateLimiterPostgres {
    const known = this.#limiters.get(name);
    if (known) return known;
    const made = new RateLimiterPostgres({
      storeClient: this.#pool,
      storeType: 'pool',
      tableName: 'rate_limits',
      tableCreated: true,
      clearExpiredByTimeout: false,
      keyPrefix: name,
      points,
      duration,
      // While the database is away, this process counts by itself.
      insuranceLimiter: new RateLimiterMemory({ keyPrefix: name, points, duration }),
    });
    this.#limiters.set(name, made);
    return made;
  }

  /** Counts one. @throws Refusal `too-many` with the seconds to wait */
  async take(name: string, key: string, rate: Rate, what: string): Promise<void> {
    try {
      await this.#limiter(name, rate).consume(digest(key));
    } catch (rejected) {
      throw tooMany(rejected, what);
    }
  }

  /** Counts one. @returns false where that is too many */
  async isWithin(name: string, key: string, rate: Rate): Promise<boolean> {
    try {
      await this.#limiter(name, rate).consume(digest(key));
      return true;
    } catch (rejected) {
      if (rejected instanceof RateLimiterRes) return false;
      throw rejected;
    }
  }

  /**
   * Counts one failure of a day; from the free ones on, each doubles the wait until the next try.
   *
   * @returns seconds to wait; 0 while failures are free
   */
  async fail(name: string, key: string, { free, firstS, longestS }: Delay): Promise<number> {
    const { consumedPoints } = await this.#limiter(`${name}-count`, FAILURES).consume(digest(key));
    if (consumedPoints < free) return 0;
    const waitS = Math.min(firstS * 2 ** (consumedPoints - free), longestS);
    await this.#limiter(`${name}-wait`, WAIT).block(digest(key), waitS);
    return waitS;
  }

  /** Refuses who has to wait, without counting. @throws Refusal `too-many` with the seconds to wait */
  async refuseWaiting(name: string, key: string, what: string): Promise<void> {
    const wait = await this.#limiter(`${name}-wait`, WAIT).get(digest(key));
    if (wait && wait.consumedPoints > WAIT.points) throw tooMany(wait, what);
  }

  /** Failures before do not count any more. */
  async forgive(name: string, key: string): Promise<void> {
    await this.#limiter(`${name}-count`, FAILURES).delete(digest(key));
  }

  /** Middleware for addresses whose secret or name stands in a parameter. */
  guard(name: keyof typeof RATES, targetOf: (request: Request) => string): RequestHandler {
    const { byAddress, byTarget } = RATES[name];
    return async (request, _response, next) => {
      await this.take(`${name}-by`, request.ip ?? '', byAddress, 'requests from this address');
      await this.take(`${name}-of`, targetOf(request), byTarget, 'requests for this page');
      next();
    };
  }
}

/** Keys are secrets or addresses of people: neither is kept as it is. */
function digest(key: string): string {
  return createHash('sha256').update(key).digest('base64url').slice(0, 32);
}

function tooMany(rejected: unknown, what: string): Refusal {
  if (!(rejected instanceof RateLimiterRes)) throw rejected;
  const seconds = Math.max(1, Math.ceil(rejected.msBeforeNext / 1000));
  return new Refusal('too-many', `Too many ${what}. Try again in ${seconds} seconds.`, {
    retryAfter: seconds,
  });
}
