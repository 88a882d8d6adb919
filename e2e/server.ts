import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from '../scripts/root.mjs';
import { codeIn, FIRST_OWNER, makeOwner } from '../server/test/first-owner.ts';
import { administer, databaseUrl } from '../server/test/template.ts';

export interface RunningServer {
  readonly origin: string;
  readonly email: string;
  readonly password: string;
  /** The code of its first start; null where it has an owner. */
  readonly startCode: string | null;
  readonly dataDir: string;
  readonly databaseUrl: string;
  readonly pid: number;
  /** Ends it at once, as a power cut would. */
  kill(): Promise<void>;
  /** Starts it again at the same address, on the same data. @param more - of its environment, from then on */
  revive(more?: NodeJS.ProcessEnv): Promise<void>;
  stop(): Promise<void>;
}

function signInOfDemo(dataDir: string): { email: string; password: string } {
  const [email, password] = readFileSync(join(dataDir, 'owner-sign-in.txt'), 'utf8').split('\n');
  return { email: email!, password: password! };
}

/** What a server without an owner has written, its code included. */
async function toldOnce({ told }: Started): Promise<string> {
  while (codeIn(told()) === null) await new Promise((resolve) => setTimeout(resolve, 20));
  return told();
}

/** The built server, running. */
export interface Started {
  readonly process: ChildProcess;
  readonly port: string;
  /** What it has written so far. */
  told(): string;
}

/** The real server, as built, on a database of its own: without anybody, with an owner and nothing else, or with the demo farm. */
export async function startServer(
  content: 'new' | 'empty' | 'demo',
  more: NodeJS.ProcessEnv = {},
): Promise<RunningServer> {
  const serverUrl = process.env['E2E_SERVER_URL']!;
  const name = `e2e_${randomUUID().replaceAll('-', '')}`;
  const template = process.env[content === 'demo' ? 'E2E_DEMO_TEMPLATE' : 'E2E_TEMPLATE'];
  await administer(serverUrl, `create database ${name} template ${template} strategy file_copy`);
  const dataDir = mkdtempSync(join(tmpdir(), 'karyotome-e2e-'));
  if (content === 'demo') cpSync(process.env['E2E_DEMO_DATA']!, dataDir, { recursive: true });
  const url = databaseUrl(serverUrl, name);
  const env = { ...serverEnvironment(url, dataDir), ...more };
  let running = await launch(env);
  const origin = `http://127.0.0.1:${running.port}`;
  if (content === 'empty') await makeOwner(origin, await toldOnce(running));
  return {
    origin,
    startCode: content === 'new' ? codeIn(await toldOnce(running)) : null,
    ...(content === 'demo' ? signInOfDemo(dataDir) : FIRST_OWNER),
    dataDir,
    databaseUrl: url,
    pid: running.process.pid!,
    kill: () => end(running, 'SIGKILL'),
    async revive(later = {}) {
      running = await launch({ ...env, ...later, PORT: running.port });
    },
    async stop() {
      await end(running, 'SIGTERM');
      await administer(serverUrl, `drop database ${name} with (force)`);
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
}

/**
 * What the built server runs with: alone and quiet, at any free port. Several servers run beside one another here; a test of
 * several processes says so.
 */
export const serverEnvironment = (url: string, dataDir: string): NodeJS.ProcessEnv => ({
  ...process.env,
  DATABASE_URL: url,
  KARYOTOME_DATA: dataDir,
  KARYOTOME_WEB: join(ROOT, 'web/dist'),
  PORT: '0',
  LOG_LEVEL: 'error',
  PROCESSES: '1',
  BACKUP_FOLDER: 'none',
});

/** Starts the built server, and waits until it listens. @param options - of Node itself */
export async function launch(env: NodeJS.ProcessEnv, options: readonly string[] = []): Promise<Started> {
  const server = spawn(process.execPath, [...options, join(ROOT, 'server/dist/main.js')], {
    env,
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
  });
  let told = '';
  const port = await new Promise<string>((resolve, reject) => {
    server.stdout!.on('data', (chunk: Buffer) => {
      told += String(chunk);
      const found = /^listening (\d+)$/m.exec(told);
      if (found) resolve(found[1]!);
    });
    server.on('exit', (code) => reject(new Error(`The server ended with ${code}: ${told}`)));
  });
  return { process: server, port, told: () => told };
}

/** @throws where the server was told to end and did not end well: with what it told */
export async function end(
  { process: server, told }: Omit<Started, 'port'>,
  signal: 'SIGTERM' | 'SIGKILL',
): Promise<void> {
  server.removeAllListeners('exit');
  if (server.exitCode !== null || server.signalCode !== null) return;
  const ended = new Promise<number | null>((resolve) => server.on('exit', resolve));
  server.kill(signal);
  const code = await ended;
  if (signal === 'SIGTERM' && code !== 0) throw new Error(`The server ended with ${code}: ${told()}`);
}
