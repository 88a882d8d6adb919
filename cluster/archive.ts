import { execFile, type ExecFileException } from 'node:child_process';
import { chmodSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { asServiceUser, giveTo, type ServiceUser } from '../scripts/service-user.mjs';
import type { NodePorts } from './node.ts';
import { Program } from './program.ts';

const run = promisify(execFile);

/*
 * Continuous archiving by pgBackRest: whichever node is the primary sends every finished segment of its write-ahead log to a
 * repository beside the nodes; with a backup of the whole cluster, every moment since then can be restored. On machines of
 * one's own the repository is on another one, or in a bucket (`repo1-type=s3`).
 */

const STANZA = 'karyotome';
/** The primary finishes a segment at the latest after so many seconds: so much can be missing where no node survives. */
const LONGEST_OPEN_S = 60;

export interface ArchivePasswords {
  /** Of the role that owns the database server. */
  readonly administrator: string;
  /** Of the repository, which is encrypted. */
  readonly archive: string;
}

/** What a node has to do with the archive. */
export class Archive {
  readonly #user: ServiceUser;
  readonly #config: string;
  readonly #env: NodeJS.ProcessEnv;

  /**
   * @param folder - of the cluster: the repository is in it, and is every node's
   * @param node - the node's own folder, data and ports
   */
  constructor(
    user: ServiceUser,
    folder: string,
    node: { readonly folder: string; readonly dataDir: string; readonly ports: NodePorts },
    administrator: string,
    passwords: ArchivePasswords,
  ) {
    const repository = join(folder, 'archive');
    mkdirSync(repository, { recursive: true, mode: 0o700 });
    giveTo(user, repository);
    this.#user = user;
    this.#config = join(node.folder, 'pgbackrest.conf');
    this.#env = {
      PATH: process.env['PATH'] ?? '',
      LANG: 'C.UTF-8',
      // There is no socket: it signs in over loopback.
      PGHOST: '127.0.0.1',
      PGPASSWORD: passwords.administrator,
    };
    const lines = [
      '[global]',
      `repo1-path=${repository}`,
      'repo1-cipher-type=aes-256-cbc',
      `repo1-cipher-pass=${passwords.archive}`,
      // Whole backups that are kept, each with the log that leads from it to the next.
      'repo1-retention-full=2',
      'compress-type=gz',
      'start-fast=y',
      `log-path=${node.folder}`,
      `lock-path=${node.folder}`,
      `spool-path=${node.folder}`,
      'log-level-console=warn',
      `[${STANZA}]`,
      `pg1-path=${node.dataDir}`,
      `pg1-port=${node.ports.postgres}`,
      `pg1-user=${administrator}`,
    ];
    writeFileSync(this.#config, `${lines.join('\n')}\n`, { mode: 0o600 });
    chmodSync(this.#config, 0o600);
  }

  #command(...args: readonly string[]): string[] {
    return ['/usr/bin/pgbackrest', `--config=${this.#config}`, `--stanza=${STANZA}`, ...args];
  }

  /** The primary's settings: it archives as it goes. */
  get settings(): Readonly<Record<string, string>> {
    return {
      archive_mode: 'on',
      archive_timeout: `${LONGEST_OPEN_S}s`,
      archive_command: this.#line('archive-push', '%p'),
    };
  }

  /** How a standby gets what the primary does not keep any more. */
  get fetchCommand(): string {
    return this.#line('archive-get', '%f', '%p');
  }

  /** A command as a shell reads it: folders may have spaces in their names. */
  #line(...args: readonly string[]): string {
    return this.#command(...args)
      .map((arg) => `"${arg}"`)
      .join(' ');
  }

  /** Waits without holding this process up: the lines between the nodes and etcd run through it. */
  async #run(...args: readonly string[]): Promise<string> {
    const [program, ...given] = this.#command(...args);
    const [command, all, options] = asServiceUser(this.#user, program!, given);
    try {
      const { stdout } = await run(command, all, { ...options, env: this.#env });
      return stdout;
    } catch (error) {
      const { stdout = '', stderr = '', message } = error as ExecFileException;
      throw new Error(`pgbackrest ${args[0]} failed: ${`${stdout}${stderr}`.trim() || message}`, {
        cause: error,
      });
    }
  }

  /** Lets the repository know this cluster, as its primary; known already, it is checked. */
  async begin(): Promise<void> {
    await this.#run('stanza-create');
  }

  /** Whether there is a backup from which a moment could be restored. */
  async hasBackup(): Promise<boolean> {
    const [stanza] = JSON.parse(await this.#run('info', '--output=json')) as { backup: unknown[] }[];
    return (stanza?.backup.length ?? 0) > 0;
  }

  /** Copies the whole cluster while it serves, as its primary, with the log that belongs to it. */
  async backUp(): Promise<void> {
    await this.#run('backup', '--type=full');
  }

  /**
   * Restores the cluster as it was at a moment, aside: a PostgreSQL of its own, which archives nothing.
   *
   * @param folder - that does not exist
   * @param to - a moment between the end of a backup and the last archived change
   * @param programs - of PostgreSQL
   * @returns it, when it is started, with all that was committed by then
   */
  restore(folder: string, to: Date, port: number, programs: string): Program {
    mkdirSync(folder, { mode: 0o700 });
    const dataDir = join(folder, 'pg');
    mkdirSync(dataDir, { mode: 0o700 });
    giveTo(this.#user, folder);
    this.#run(
      'restore',
      `--pg1-path=${dataDir}`,
      '--archive-mode=off',
      '--type=time',
      `--target=${to.toISOString().replace('T', ' ').replace('Z', '+00')}`,
      '--target-action=promote',
    );
    const settings: Readonly<Record<string, string | number>> = {
      port,
      listen_addresses: '127.0.0.1',
      // What Patroni wrote is of the node that was backed up.
      hba_file: join(dataDir, 'pg_hba.conf'),
      ident_file: join(dataDir, 'pg_ident.conf'),
      synchronous_standby_names: '',
    };
    return new Program(this.#user, {
      name: 'restored',
      program: join(programs, 'postgres'),
      args: [
        '-D',
        dataDir,
        ...Object.entries(settings).flatMap(([name, value]) => ['-c', `${name}=${value}`]),
      ],
      log: join(folder, 'postgres.log'),
      stopSignal: 'SIGINT',
    });
  }
}
