import fs from 'node:fs';
import { installDebian } from './debian.mjs';

/** Debian's packages that a cluster runs, each with a file that tells whether it is there. */
const PACKAGES = {
  patroni: '/usr/bin/patroni',
  // Patroni's own client of etcd.
  'python3-etcd': '/usr/lib/python3/dist-packages/etcd/__init__.py',
  'etcd-server': '/usr/bin/etcd',
  haproxy: '/usr/sbin/haproxy',
  pgbouncer: '/usr/sbin/pgbouncer',
  pgbackrest: '/usr/bin/pgbackrest',
};

/** Installs what a cluster needs beside PostgreSQL. @throws SetupError where we may not */
export function installClusterPackages(say) {
  const missing = Object.keys(PACKAGES).filter((name) => !fs.existsSync(PACKAGES[name]));
  if (missing.length > 0) installDebian(missing, say);
}
