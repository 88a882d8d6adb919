import pg from 'pg';

/*
 * The driver's connections, with what this program needs of them: they send without waiting, and an error of theirs has a
 * code where the driver gives it none.
 */

/** SQLSTATE: a connection broke. */
const CONNECTION_FAILURE = '08006';
/** SQLSTATE: no connection could be made. */
const NO_CONNECTION = '08001';

interface Coded {
  code?: string;
}
type Connected = (
  error: Error | undefined,
  client: pg.PoolClient | undefined,
  done: (release?: unknown) => void,
) => void;
type Callback = (error: Error | null | undefined, ...rest: unknown[]) => void;

function coded(error: unknown, code: string): void {
  if (error instanceof Error) (error as Coded).code ??= code;
}

/** Sends what it is asked without waiting for the answer to what it was asked before. Answers come in the order of the questions. */
export class Client extends pg.Client {
  #isLost = false;

  constructor(config: pg.ClientConfig) {
    super({ ...config, pipeline: true } as pg.ClientConfig);
    // Said before those who wait for an answer are told, whose error is the same.
    this.on('error', () => (this.#isLost = true));
    this.on('end', () => (this.#isLost = true));
    this.query = this.#coding(this.query.bind(this) as (...args: unknown[]) => unknown) as typeof this.query;
  }

  override end(): Promise<void>;
  override end(callback: (error: Error) => void): void;
  override end(callback?: (error: Error) => void): Promise<void> | void {
    this.#isLost = true;
    return callback ? super.end(callback) : super.end();
  }

  #coding(send: (...args: unknown[]) => unknown): (...args: unknown[]) => unknown {
    const name = (error: unknown): void => {
      if (this.#isLost) coded(error, CONNECTION_FAILURE);
    };
    return (...args) => {
      const last = args.at(-1);
      if (typeof last === 'function') {
        const callback = last as Callback;
        const told: Callback = (error, ...rest) => {
          name(error);
          callback(error, ...rest);
        };
        return send(...args.slice(0, -1), told);
      }
      const answer = send(...args);
      if (!(answer instanceof Promise)) return answer;
      return answer.catch((error: unknown) => {
        name(error);
        throw error;
      });
    };
  }
}

/** The driver as Sequelize takes it. */
export const DRIVER = Object.create(pg, { Client: { value: Client } }) as typeof pg;

/** A pool of such connections. */
export class Pool extends pg.Pool {
  constructor(config: pg.PoolConfig) {
    super({ ...config, Client: Client as unknown as new () => pg.ClientBase });
  }

  override connect(): Promise<pg.PoolClient>;
  override connect(callback: Connected): void;
  override connect(callback?: Connected): Promise<pg.PoolClient> | void {
    if (!callback)
      return super.connect().catch((error: unknown) => {
        coded(error, NO_CONNECTION);
        throw error;
      });
    super.connect((error, client, done) => {
      coded(error, NO_CONNECTION);
      callback(error, client, done);
    });
  }
}
