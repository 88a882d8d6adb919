import { chmodSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { APPLICATION_ROLE } from '../scripts/postgres.mjs';
import { giveTo, type ServiceUser } from '../scripts/service-user.mjs';
import { Program } from './program.ts';

export interface Pooled {
  /** Where it listens. */
  readonly port: number;
  /** The proxy's ports. */
  readonly primary: number;
  readonly standby: number;
  /** The application's, with the database server. */
  readonly password: string;
}

/** The database as the pooler calls it where it leads to a standby. */
export const STANDBY_DATABASE = 'karyotome_standby';

/** PgBouncer in transaction mode: few connections of the database serve many of the application's. */
export function pgbouncer(
  user: ServiceUser,
  folder: string,
  { port, primary, standby, password }: Pooled,
): Program {
  const users = join(folder, 'pgbouncer-users.txt');
  const file = join(folder, 'pgbouncer.ini');
  writeFileSync(users, `"${APPLICATION_ROLE}" "${password}"\n`, { mode: 0o600 });
  writeFileSync(
    file,
    `[databases]
karyotome = host=127.0.0.1 port=${primary} dbname=karyotome
${STANDBY_DATABASE} = host=127.0.0.1 port=${standby} dbname=karyotome
[pgbouncer]
listen_addr = 127.0.0.1
listen_port = ${port}
unix_socket_dir =
auth_type = scram-sha-256
auth_file = ${users}
pool_mode = transaction
max_client_conn = 400
default_pool_size = 40
server_login_retry = 1
server_connect_timeout = 3
query_wait_timeout = 20
# What the application asks of a connection is set for its role (cluster.ts): a pooled connection is everybody's.
ignore_startup_parameters = extra_float_digits,lock_timeout,statement_timeout,idle_in_transaction_session_timeout
`,
    { mode: 0o600 },
  );
  for (const own of [users, file]) {
    chmodSync(own, 0o600);
    giveTo(user, own);
  }
  return new Program(user, {
    name: 'pgbouncer',
    program: '/usr/sbin/pgbouncer',
    args: [file],
    log: join(folder, 'pgbouncer.log'),
    stopSignal: 'SIGTERM',
  });
}
