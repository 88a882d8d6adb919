import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { giveTo, type ServiceUser } from '../scripts/service-user.mjs';
import { Program } from './program.ts';

/** The store in which the nodes agree on who leads. One of them here; three on machines of their own where it matters. */
export function etcd(
  user: ServiceUser,
  folder: string,
  { client, peer }: { readonly client: number; readonly peer: number },
): Program {
  const dataDir = join(folder, 'etcd');
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  giveTo(user, dataDir);
  const at = (port: number): string => `http://127.0.0.1:${port}`;
  return new Program(user, {
    name: 'etcd',
    program: '/usr/bin/etcd',
    args: [
      '--name=etcd',
      `--data-dir=${dataDir}`,
      `--listen-client-urls=${at(client)}`,
      `--advertise-client-urls=${at(client)}`,
      `--listen-peer-urls=${at(peer)}`,
      `--initial-advertise-peer-urls=${at(peer)}`,
      `--initial-cluster=etcd=${at(peer)}`,
      '--logger=zap',
      '--log-level=warn',
    ],
    log: join(folder, 'etcd.log'),
  });
}
