import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { ensureDatabase } from '../scripts/application-database.mjs';
import { programsFor } from '../scripts/debian.mjs';
import { APPLICATION_ROLE } from '../scripts/postgres.mjs';
import { ROOT } from '../scripts/root.mjs';
import { serviceUser } from '../scripts/service-user.mjs';
import { CONNECTION_LIMITS_MS } from '../server/src/db/connection.ts';
import { answers, isOpen, isWritable } from './answers.ts';
import { Application } from './application.ts';
import { etcd } from './etcd.ts';
import { haproxy } from './haproxy.ts';
import { ADMINISTRATOR, Node, type Passwords } from './node.ts';
import { pgbouncer, STANDBY_DATABASE } from './pgbouncer.ts';
import { freePorts } from '../scripts/ports.mjs';
import { until, type Program } from './program.ts';

/*
 * Everything that serves Karyotome with as little as possible that may not fail, on loopback: etcd, two nodes of PostgreSQL
 * under Patroni, HAProxy, PgBouncer and three processes of the application.
 */

const HOST = '127.0.0.1';
const NODES = 2;
const PROCESSES = 3;
const DATABASE = 'karyotome';
/** A standby copies the primary first. */
const COPIED_MS = 120_000;
/** Everything since the last backup is done again. */
const RESTORED_MS = 120_000;

interface Secrets extends Passwords {
  readonly application: string;
}

/** Made once, and kept with the data. */
function secretsOf(folder: string): Secrets {
  const file = join(folder, 'secrets.json');
  const kept = existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Partial<Secrets>) : {};
  const secret = (): string => randomBytes(18).toString('base64url');
  const made = {
    administrator: secret(),
    replication: secret(),
    application: secret(),
    archive: secret(),
    ...kept,
  };
  writeFileSync(file, JSON.stringify(made), { mode: 0o600 });
  return made;
}

/** Where everything listens. Each start has other ports, but for the one that people use. */
async function choosePorts() {
  const ports = await freePorts(5 + 5 * NODES + PROCESSES);
  const next = (): number => ports.pop()!;
  return {
    etcd: { client: next(), peer: next() },
    primary: next(),
    standby: next(),
    pooler: next(),
    nodes: Array.from({ length: NODES }, () => ({
      postgres: next(),
      patroni: next(),
      links: { postgres: next(), patroni: next(), etcd: next() },
    })),
    processes: Array.from({ length: PROCESSES }, next),
  };
}

interface Part {
  start(): Promise<void> | void;
  stop(): Promise<void>;
}

export class Cluster {
  /** The address that people use. */
  readonly origin: string;
  readonly nodes: readonly Node[];
  readonly pooler: Program;
  readonly application: Application;
  readonly #parts: { readonly store: Part; readonly proxy: Part };
  readonly #folder: string;
  readonly #programs: string;
  readonly #ports: Awaited<ReturnType<typeof choosePorts>>;
  readonly #secrets: Secrets;
  readonly #running: Part[] = [];

  private constructor(folder: string, port: number, ports: Awaited<ReturnType<typeof choosePorts>>) {
    mkdirSync(folder, { recursive: true });
    // Debian's package of PostgreSQL brings the user that all of it runs as.
    const programs = programsFor(join(folder, 'node-1', 'pg'), console.log);
    this.#folder = folder;
    this.#programs = programs;
    const user = serviceUser(ROOT);
    const secrets = secretsOf(folder);
    this.origin = `http://${HOST}:${port}`;
    this.#ports = ports;
    this.#secrets = secrets;
    this.nodes = ports.nodes.map((own, i) => {
      const settings = { ports: own, etcdPort: ports.etcd.client, passwords: secrets };
      return new Node(user, folder, programs, { name: `node-${i + 1}`, ...settings });
    });
    const { primary, standby } = ports;
    this.#parts = {
      store: etcd(user, folder, ports.etcd),
      proxy: haproxy(user, folder, { host: HOST, application: port, primary, standby }, ports),
    };
    const password = secrets.application;
    this.pooler = pgbouncer(user, folder, { port: ports.pooler, primary, standby, password });
    this.application = new Application(user, folder, ports.processes, {
      pooled: this.#applicationUrl(ports.pooler, DATABASE),
      standby: this.#applicationUrl(ports.pooler, STANDBY_DATABASE),
      direct: this.#applicationUrl(primary, DATABASE),
    });
  }

  /**
   * Starts it all, with the demo farm where there are no records yet.
   *
   * @param folder - of its data, which stay
   * @param port - of the address that people use
   */
  static async start(folder: string, port: number, say: (line: string) => void): Promise<Cluster> {
    const cluster = new Cluster(folder, port, await choosePorts());
    try {
      say('Starting etcd and two nodes of PostgreSQL');
      await cluster.#startDatabase();
      say('Starting PgBouncer, HAProxy and three processes of the application');
      await cluster.#startApplication();
      return cluster;
    } catch (error) {
      await cluster.stop();
      throw error;
    }
  }

  /** As the database's administrator, wherever the primary is. */
  databaseUrl(database = DATABASE): string {
    return this.#administratorUrl(this.#ports.primary, database);
  }

  #administratorUrl(port: number, database: string): string {
    return `postgres://${ADMINISTRATOR}:${this.#secrets.administrator}@${HOST}:${port}/${database}`;
  }

  #applicationUrl(port: number, database: string): string {
    return `postgres://${APPLICATION_ROLE}:${this.#secrets.application}@${HOST}:${port}/${database}`;
  }

  async #begin(part: Part): Promise<void> {
    this.#running.unshift(part);
    await part.start();
  }

  async #startDatabase(): Promise<void> {
    await this.#begin(this.#parts.store);
    await until('etcd answers', () => answers(`http://${HOST}:${this.#ports.etcd.client}/health`));
    // Which of them leads is theirs to agree on.
    for (const node of this.nodes) await this.#begin(node);
    await this.#begin(this.#parts.proxy);
    const primary = await this.primary();
    await until('the proxy leads to the primary', () => isOpen(this.databaseUrl('postgres')));
    for (const node of this.nodes) if (node !== primary) await this.hasStandby(node);
    await primary.archive.begin();
    const url = (database: string): string => this.databaseUrl(database);
    await ensureDatabase(
      { url, applicationUrl: url, applicationPassword: this.#secrets.application },
      DATABASE,
    );
    await limitRole(this.databaseUrl());
  }

  async #startApplication(): Promise<void> {
    const { pooler, processes } = this.#ports;
    await this.#begin(this.pooler);
    await until('the pooler leads to the database', () => isOpen(this.#applicationUrl(pooler, DATABASE)));
    await this.application.loadDemo();
    const { archive } = await this.primary();
    if (!(await archive.hasBackup())) await archive.backUp();
    await this.#begin(this.application);
    for (const port of processes)
      await until('each process answers', () => answers(`http://${HOST}:${port}/api/v1/health`));
    await until('the proxy leads to them', () => answers(`${this.origin}/api/v1/health`));
  }

  /** The node that leads. @throws Error where none does in time */
  async primary(): Promise<Node> {
    let found: Node | undefined;
    const find = async (): Promise<boolean> => {
      const leads = await Promise.all(this.nodes.map((node) => node.is('primary')));
      found = this.nodes[leads.indexOf(true)];
      return found !== undefined;
    };
    await until('a node leads', find, { withinMs: COPIED_MS });
    return found!;
  }

  /** Waits until a node has everything that was answered, and could take over. */
  hasStandby(node: Node): Promise<void> {
    return until(`${node.name} has everything`, () => node.is('synchronous'), { withinMs: COPIED_MS });
  }

  /**
   * Starts the cluster's database aside as it was at a moment, from the archive.
   *
   * @param to - after the first backup
   * @returns its address, and what ends it
   */
  async restored(to: Date): Promise<{ readonly url: string; stop(): Promise<void> }> {
    const { archive } = await this.primary();
    const [port] = await freePorts(1);
    const program = archive.restore(join(this.#folder, 'restored'), to, port!, this.#programs);
    const url = this.#administratorUrl(port!, DATABASE);
    program.start();
    await until('the restored database can be written to', () => isWritable(url), { withinMs: RESTORED_MS });
    return { url, stop: () => program.stop() };
  }

  /** In the opposite order: nobody loses what they need to end well. */
  async stop(): Promise<void> {
    for (const part of this.#running.splice(0)) await part.stop();
  }
}

/** A pooled connection carries none of the limits that the application asks for: the role has them. */
async function limitRole(url: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    for (const [name, value] of Object.entries(CONNECTION_LIMITS_MS))
      await client.query(`alter role ${APPLICATION_ROLE} set ${name} = ${value}`);
  } finally {
    await client.end();
  }
}
