import { chmodSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { postmasterOf } from '../scripts/postgres.mjs';
import { giveTo, type ServiceUser } from '../scripts/service-user.mjs';
import { answers } from './answers.ts';
import { Archive, type ArchivePasswords } from './archive.ts';
import { Link } from './link.ts';
import { Program } from './program.ts';

/*
 * A node of the database: a PostgreSQL and the Patroni that runs it. One node at a time is the primary: who it is stands in
 * etcd, under a lease that the primary renews; when it does not, the standby that has everything takes over.
 */

/** What its users sign in with. */
export interface Passwords extends ArchivePasswords {
  /** Of the role that standbys stream from the primary as. */
  readonly replication: string;
}

export const ADMINISTRATOR = 'app';
const REPLICATION = 'standby';

/** Ports of a node: where its programs listen, and where others reach them. */
export interface NodePorts {
  readonly postgres: number;
  readonly patroni: number;
  /** Lines to this node, and the line from it to etcd. */
  readonly links: { readonly postgres: number; readonly patroni: number; readonly etcd: number };
}

/**
 * How the nodes watch over one another. A primary that does not renew its lease within `ttl` seconds has lost it; `ttl` has to
 * be at least `loop_wait` + 2 × `retry_timeout` (Patroni's documentation). Patroni's own defaults are 30, 10 and 10: these are
 * for nodes that are near one another.
 */
const WATCH = { ttl: 8, loop_wait: 2, retry_timeout: 3 };

/** Of each PostgreSQL. Beyond these, as Debian has them. */
const SETTINGS = {
  max_connections: 200,
  // What a primary that was cut off wrote for itself alone can be found, and undone.
  wal_log_hints: 'on',
  wal_keep_size: '256MB',
  unix_socket_directories: '',
  // What is written is not in a log that anybody may be sent.
  log_error_verbosity: 'terse',
  log_parameter_max_length: 0,
  log_parameter_max_length_on_error: 0,
  log_min_error_statement: 'panic',
};

export class Node {
  readonly name: string;
  readonly ports: NodePorts;
  readonly dataDir: string;
  readonly archive: Archive;
  readonly #program: Program;
  #links: readonly Link[] = [];
  readonly #etcdPort: number;

  constructor(
    user: ServiceUser,
    folder: string,
    programs: string,
    settings: {
      readonly name: string;
      readonly ports: NodePorts;
      readonly etcdPort: number;
      readonly passwords: Passwords;
    },
  ) {
    const { name, ports, etcdPort, passwords } = settings;
    this.name = name;
    this.ports = ports;
    this.#etcdPort = etcdPort;
    const own = join(folder, name);
    mkdirSync(own, { recursive: true, mode: 0o700 });
    this.dataDir = join(own, 'pg');
    const place = { folder: own, dataDir: this.dataDir, ports };
    this.archive = new Archive(user, folder, place, ADMINISTRATOR, passwords);
    const file = join(own, 'patroni.yml');
    // JSON is YAML.
    writeFileSync(file, JSON.stringify(this.#configuration(own, programs, passwords), null, 1), {
      mode: 0o600,
    });
    chmodSync(file, 0o600);
    giveTo(user, own);
    this.#program = new Program(user, {
      name,
      program: '/usr/bin/patroni',
      args: [file],
      env: { HOME: own },
      log: join(folder, `${name}.log`),
    });
  }

  #configuration(own: string, programs: string, passwords: Passwords): object {
    const { ports, name } = this;
    return {
      scope: 'karyotome',
      name,
      restapi: {
        listen: `127.0.0.1:${ports.patroni}`,
        connect_address: `127.0.0.1:${ports.links.patroni}`,
      },
      // Told so, Patroni asks no other address that etcd gives of itself.
      etcd3: { proxy: `http://127.0.0.1:${ports.links.etcd}` },
      bootstrap: {
        dcs: {
          ...WATCH,
          // A primary whose PostgreSQL died is not waited for: the standby has everything.
          primary_start_timeout: 0,
          // An answered write is on two disks. Where the standby is away, the primary goes on alone, and no standby that missed
          // something can take over.
          synchronous_mode: true,
          postgresql: { use_pg_rewind: true, use_slots: true, parameters: SETTINGS },
        },
        initdb: [{ encoding: 'UTF8' }, { locale: 'C.UTF-8' }, 'data-checksums'],
      },
      postgresql: {
        listen: `127.0.0.1:${ports.postgres}`,
        connect_address: `127.0.0.1:${ports.links.postgres}`,
        data_dir: this.dataDir,
        bin_dir: programs,
        pgpass: join(own, 'pgpass'),
        parameters: this.archive.settings,
        recovery_conf: { restore_command: this.archive.fetchCommand },
        authentication: {
          superuser: { username: ADMINISTRATOR, password: passwords.administrator },
          replication: { username: REPLICATION, password: passwords.replication },
        },
        pg_hba: [
          `host replication ${REPLICATION} 127.0.0.1/32 scram-sha-256`,
          'host all all 127.0.0.1/32 scram-sha-256',
        ],
      },
    };
  }

  async start(): Promise<void> {
    const { postgres, patroni, links } = this.ports;
    this.#links = await Promise.all([
      Link.open(links.postgres, postgres),
      Link.open(links.patroni, patroni),
      Link.open(links.etcd, this.#etcdPort),
    ]);
    this.#program.start();
  }

  async stop(): Promise<void> {
    await this.#program.stop();
    // One that Patroni was just starting outlives it.
    const postmaster = postmasterOf(this.dataDir);
    if (postmaster !== null) process.kill(postmaster, 'SIGINT');
    await Promise.all(this.#links.map((link) => link.close()));
  }

  /** Cuts the node off from all others: nobody reaches it, and it reaches nobody. */
  cutOff(): void {
    for (const link of this.#links) link.cut();
  }

  bringBack(): void {
    for (const link of this.#links) link.mend();
  }

  /** Ends Patroni and PostgreSQL at once, as a power cut would; it stays off until it is started. */
  async kill(): Promise<void> {
    await this.#program.kill({ hold: true });
    const postmaster = postmasterOf(this.dataDir);
    if (postmaster !== null) process.kill(postmaster, 'SIGKILL');
  }

  /** After it was killed. */
  startAgain(): void {
    this.#program.start();
  }

  /**
   * Whether it leads, follows, or follows with everything that was answered, as Patroni says. The node itself is asked, also
   * where it is cut off.
   */
  is(what: 'primary' | 'replica' | 'synchronous'): Promise<boolean> {
    return answers(`http://127.0.0.1:${this.ports.patroni}/${what}`);
  }
}
