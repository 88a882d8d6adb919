import { spawn } from 'node:child_process';
import { chmodSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../scripts/root.mjs';
import { asServiceUser, giveTo, type ServiceUser } from '../scripts/service-user.mjs';
import { Program } from './program.ts';

/** The application's addresses of its database. */
export interface DatabaseUrls {
  /** Through the pooler. */
  readonly pooled: string;
  /** Of a standby, through the pooler. */
  readonly standby: string;
  /** Past the pooler, which cannot pass on what the database tells those who listen. */
  readonly direct: string;
}

/** The processes that serve people, with what they share: one database, one data folder. */
export class Application {
  readonly processes: readonly Program[];
  readonly #user: ServiceUser;
  readonly #data: string;
  readonly #env: NodeJS.ProcessEnv;

  constructor(user: ServiceUser, folder: string, ports: readonly number[], urls: DatabaseUrls) {
    this.#user = user;
    this.#data = join(folder, 'data');
    mkdirSync(this.#data, { recursive: true, mode: 0o700 });
    chmodSync(this.#data, 0o700);
    giveTo(user, this.#data);
    this.#env = {
      DATABASE_URL: urls.pooled,
      DATABASE_POOLER: 'transaction',
      DIRECT_DATABASE_URL: urls.direct,
      STANDBY_DATABASE_URL: urls.standby,
      KARYOTOME_DATA: this.#data,
      KARYOTOME_WEB: join(ROOT, 'web/dist'),
      TRUSTED_PROXIES: 'loopback',
      LOG_LEVEL: 'warn',
      HOME: this.#data,
      PROCESSES: '1',
    };
    this.processes = ports.map(
      (port, i) =>
        new Program(user, {
          name: `process-${i + 1}`,
          program: process.execPath,
          args: [join(ROOT, 'server/dist/main.js')],
          env: { ...this.#env, PORT: String(port) },
          log: join(folder, `process-${i + 1}.log`),
        }),
    );
  }

  /** Loads the demo farm; where there are records already it does nothing. */
  async loadDemo(): Promise<void> {
    const program = join(ROOT, 'server/dist/demo.js');
    const [command, args, options] = asServiceUser(this.#user, process.execPath, [program]);
    const child = spawn(command, args, {
      ...options,
      env: { PATH: process.env['PATH'] ?? '', ...this.#env },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    const code = await new Promise<number | null>((resolve) => child.once('exit', resolve));
    if (code !== 0) throw new Error(`The demo data could not be loaded (${code}).`);
  }

  start(): void {
    for (const one of this.processes) one.start();
  }

  async stop(): Promise<void> {
    await Promise.all(this.processes.map((one) => one.stop()));
  }

  /** The first person's e-mail address and password. */
  signIn(): [email: string, password: string] {
    const [email = '', password = ''] = readFileSync(join(this.#data, 'owner-sign-in.txt'), 'utf8').split(
      '\n',
    );
    return [email, password];
  }
}
