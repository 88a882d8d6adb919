import type { Delay, RateLimits } from '../../http/rate-limits.ts';

/*
 * Tries to get in that failed: counted in the database by the address they come from and by the account they are for. Each one
 * too many doubles the wait. Many addresses can make an account wait, so that its wait stays short enough for its owner.
 */

const FIRST_S = 30;
const LONGEST_BY_ADDRESS_S = 3600;
const LONGEST_OF_ACCOUNT_S = 900;
const FREE_OF_ACCOUNT = 30;
const OF_ACCOUNT: Delay = { free: FREE_OF_ACCOUNT, firstS: FIRST_S, longestS: LONGEST_OF_ACCOUNT_S };

export interface Attempt {
  /** Where it comes from. */
  readonly address: string;
  /** The account it is for, by the address that was given; null where a link is tried. */
  readonly email: string | null;
}

export class Attempts {
  readonly #limits: RateLimits;
  readonly #byAddress: Delay;
  readonly #kind: string;

  /**
   * @param kind - of what is tried: each kind counts addresses by itself
   * @param free - failures from one address that cost nothing
   */
  constructor(limits: RateLimits, kind: 'sign-in' | 'join', free: number) {
    this.#limits = limits;
    this.#kind = kind;
    this.#byAddress = { free, firstS: FIRST_S, longestS: LONGEST_BY_ADDRESS_S };
  }

  /** @throws Refusal `too-many` with the seconds to wait */
  async check({ address, email }: Attempt): Promise<void> {
    await this.#limits.refuseWaiting(`${this.#kind}-by`, address, 'failed attempts from this address');
    if (email !== null)
      await this.#limits.refuseWaiting('sign-in-of', email, 'failed sign-ins for this account');
  }

  /** The one that reaches the limit is still told that it was wrong; the next is told to wait. @returns whether one has to */
  async failed({ address, email }: Attempt): Promise<boolean> {
    const wait = await this.#limits.fail(`${this.#kind}-by`, address, this.#byAddress);
    if (email === null) return wait > 0;
    return (await this.#limits.fail('sign-in-of', email, OF_ACCOUNT)) > 0 || wait > 0;
  }

  /** Whoever got in may mistype again; where from, counts on: somebody with an account must not guess those of others. */
  succeeded({ email }: Attempt): Promise<void> {
    return email === null ? Promise.resolve() : this.#limits.forgive('sign-in-of', email);
  }
}
