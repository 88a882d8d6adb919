/* Starts the built server as it runs for users, and asks it as a browser would. */
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import http from 'node:http';
import { join } from 'node:path';
import { end, launch as launchBuilt, serverEnvironment } from '../e2e/server.ts';
import { ROOT } from '../scripts/root.mjs';

export const PASSWORD = 'only-for-the-bench';
export const EMAIL = 'bench@example.test';

export interface Running {
  readonly origin: string;
  readonly startedMs: number;
  readonly process: ChildProcess;
  /** What the watch over its main thread has seen since it was last asked. */
  watched(): Promise<Watched>;
  stop(): Promise<void>;
}

/** Delay of the event loop in milliseconds, and memory in megabytes. */
export interface Watched {
  readonly delayP99: number;
  readonly delayMax: number;
  readonly rssMb: number;
}

/** Starts it, watched. `PROCESSES` of the environment says in how many processes. */
export async function launch(url: string, dataDir: string, more: NodeJS.ProcessEnv = {}): Promise<Running> {
  const start = performance.now();
  const started = await launchBuilt(
    { ...serverEnvironment(url, dataDir), PROCESSES: process.env['PROCESSES'] ?? '1', ...more },
    ['--import', join(ROOT, 'bench/watch-loop.mjs')],
  );
  const { process: server, port } = started;
  return {
    origin: `http://127.0.0.1:${port}`,
    startedMs: performance.now() - start,
    process: server,
    watched: () =>
      new Promise((resolve) => {
        server.once('message', (message) => resolve(message as Watched));
        server.send('watched');
      }),
    stop: () => end(started, 'SIGTERM'),
  };
}

/** How an answer came. */
export interface Answered {
  readonly status: number;
  readonly ms: number;
  readonly body: string;
}

/** Somebody signed in, over connections that stay open. */
export class Client {
  readonly #origin: URL;
  readonly #agent: http.Agent;
  readonly #headers: Readonly<Record<string, string>>;

  private constructor(origin: string, agent: http.Agent, headers: Readonly<Record<string, string>>) {
    this.#origin = new URL(origin);
    this.#agent = agent;
    this.#headers = headers;
  }

  static async signIn(origin: string, agent: http.Agent): Promise<Client> {
    const signedIn = await fetch(`${origin}/api/v1/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ email: EMAIL, password: PASSWORD }),
    });
    if (!signedIn.ok) throw new Error(`Sign-in: ${signedIn.status}`);
    const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!;
    const { csrfToken } = (await signedIn.json()) as { csrfToken: string };
    return new Client(origin, agent, { cookie, 'X-CSRF-Token': csrfToken });
  }

  get cookie(): string {
    return this.#headers['cookie']!;
  }

  get csrfToken(): string {
    return this.#headers['X-CSRF-Token']!;
  }

  get(path: string): Promise<Answered> {
    return this.#ask('GET', path);
  }

  post(path: string, body: object): Promise<Answered> {
    return this.#ask('POST', path, body);
  }

  /** @throws Error for any answer but a success */
  #ask(method: string, path: string, body?: object): Promise<Answered> {
    const start = performance.now();
    const payload = body && JSON.stringify(body);
    return new Promise((resolve, reject) => {
      const request = http.request(
        {
          agent: this.#agent,
          host: this.#origin.hostname,
          port: this.#origin.port,
          method,
          path: `/api/v1${path}`,
          headers: {
            ...this.#headers,
            ...(payload
              ? {
                  'Content-Type': 'application/json',
                  'Content-Length': Buffer.byteLength(payload),
                  'Idempotency-Key': randomUUID(),
                }
              : {}),
          },
        },
        (response) => {
          const chunks: Buffer[] = [];
          response.on('data', (chunk: Buffer) => chunks.push(chunk));
          response.on('end', () => {
            const text = Buffer.concat(chunks).toString();
            const status = response.statusCode!;
            if (status >= 300) reject(new Error(`${method} ${path}: ${status} ${text.slice(0, 300)}`));
            else resolve({ status, ms: performance.now() - start, body: text });
          });
        },
      );
      request.on('error', reject);
      request.end(payload);
    });
  }
}
