import { chmodSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { ServiceUser } from '../scripts/service-user.mjs';
import type { NodePorts } from './node.ts';
import { Program } from './program.ts';

/** Where the proxy listens. */
export interface ProxyPorts {
  readonly host: string;
  readonly application: number;
  readonly primary: number;
  readonly standby: number;
}

/** An alive one is asked so often; who is silent twice is taken out, and its connections are ended. */
const WATCH = 'inter 1s fall 2 rise 1 on-marked-down shutdown-sessions';

/**
 * HAProxy before the application and before the database: requests go to a process that answers, what is written to the
 * primary, what may be a moment old to a standby, or to the primary where there is none.
 */
export function haproxy(user: ServiceUser, folder: string, ports: ProxyPorts, behind: Behind): Program {
  const file = join(folder, 'haproxy.cfg');
  writeFileSync(file, configuration(ports, behind));
  chmodSync(file, 0o644);
  return new Program(user, {
    name: 'haproxy',
    program: '/usr/sbin/haproxy',
    args: ['-W', '-db', '-f', file],
    log: join(folder, 'haproxy.log'),
  });
}

/** What it leads to: processes by their ports, and nodes of the database. */
interface Behind {
  readonly processes: readonly number[];
  readonly nodes: readonly NodePorts[];
}

function configuration(ports: ProxyPorts, { processes, nodes }: Behind): string {
  return `global
  maxconn 2000
defaults
  timeout connect 2s
  timeout check 2s
  timeout client 90s
  timeout server 90s
frontend application
  mode http
  bind ${ports.host}:${ports.application}
  default_backend processes
backend processes
  mode http
  balance leastconn
  option forwardfor
  option redispatch 1
  retries 3
  # A read that a process took with it when it ended is asked of another one. A write is the client's to repeat, with its key.
  retry-on conn-failure empty-response
  http-request disable-l7-retry if !METH_GET
  option httpchk
  http-check send meth HEAD uri /
  http-check expect status 200
${processes.map((port, i) => `  server process-${i + 1} 127.0.0.1:${port} check ${WATCH}`).join('\n')}
frontend primary
  mode tcp
  bind 127.0.0.1:${ports.primary}
  timeout client 30m
  default_backend primaries
frontend standby
  mode tcp
  bind 127.0.0.1:${ports.standby}
  timeout client 30m
  use_backend standbys if { nbsrv(standbys) gt 0 }
  default_backend primaries
${databases('standbys', '/replica', nodes)}
${databases('primaries', '/primary', nodes)}
`;
}

/** Those of the nodes of which their Patroni says that they are what is asked for. */
const databases = (name: string, asked: string, nodes: readonly NodePorts[]): string =>
  [
    `backend ${name}`,
    '  mode tcp',
    '  timeout server 30m',
    '  option httpchk',
    `  http-check send meth GET uri ${asked}`,
    '  http-check expect status 200',
    ...nodes.map(
      ({ links }, i) =>
        `  server node-${i + 1} 127.0.0.1:${links.postgres} check port ${links.patroni} ${WATCH}`,
    ),
  ].join('\n');
