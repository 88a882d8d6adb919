/*
 * Debian's packages: what of PostgreSQL is there, and what is missing is installed where we may. Imports nothing but Node,
 * since it runs before npm packages are there.
 */
import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';

const DEBIAN_CLUSTERS = '/usr/lib/postgresql';

/** What somebody has to do before this can start. */
export class SetupError extends Error {}

/** Runs a program to its end. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { encoding: 'utf8', ...options });
  return {
    ok: result.status === 0,
    output: `${result.stdout ?? ''}${result.stderr ?? ''}${result.error?.message ?? ''}`,
  };
}

function installedVersions() {
  if (!fs.existsSync(DEBIAN_CLUSTERS)) return [];
  return fs
    .readdirSync(DEBIAN_CLUSTERS)
    .map(Number)
    .filter(
      (version) =>
        version >= 13 && fs.existsSync(path.join(DEBIAN_CLUSTERS, String(version), 'bin', 'initdb')),
    );
}

/** Where Debian puts a version's programs. */
export const programsOf = (version) => path.join(DEBIAN_CLUSTERS, String(version), 'bin');

/** Installs Debian packages as root, saying so before; otherwise says which to install. */
export function installDebian(packages, say) {
  if (process.getuid() !== 0) {
    throw new SetupError(
      `Missing Debian packages. Ask an administrator to run: apt-get install ${packages.join(' ')}`,
    );
  }
  say(`Installing on this machine, from Debian's packages: ${packages.join(', ')}`);
  const install = () =>
    run('apt-get', ['install', '-y', '--no-install-recommends', ...packages], {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  let result = install();
  if (!result.ok) {
    run('apt-get', ['update']);
    result = install();
  }
  if (!result.ok)
    throw new SetupError(`apt-get could not install ${packages.join(', ')}:\n${result.output.slice(-2000)}`);
}

/** The programs that fit the data: of the version it was made by, or of the newest where there is none yet. */
export function programsFor(dataDir, say) {
  const version = dataVersion(dataDir);
  const installed = installedVersions();
  if (version !== null) {
    if (installed.includes(version)) return programsOf(version);
    const others = installed.length > 0 ? ` Installed: ${installed.join(', ')}.` : '';
    if (process.getuid() !== 0 || !canInstall(version))
      throw new SetupError(
        `The data in ${dataDir} was made by PostgreSQL ${version}, which is not installed.${others} ` +
          `Install postgresql-${version}, or move the data over with pg_upgrade (PostgreSQL's own documentation says how).`,
      );
    installServer(version, say);
    return programsOf(version);
  }
  if (installed.length === 0) installServer(15, say);
  const versions = installedVersions();
  if (versions.length === 0)
    throw new SetupError('PostgreSQL was installed but its programs were not found.');
  return programsOf(Math.max(...versions));
}

const canInstall = (version) => run('apt-cache', ['show', `postgresql-${version}`]).ok;

function installServer(version, say) {
  if (process.getuid() === 0) {
    const file = '/etc/postgresql-common/createcluster.conf';
    const line = 'create_main_cluster = false';
    if (!fs.existsSync(file) || !fs.readFileSync(file, 'utf8').split('\n').includes(line)) {
      say(`Writing "${line}" to ${file}, so that Debian starts no database of its own beside this one`);
      fs.mkdirSync(path.dirname(file), { recursive: true });
      fs.appendFileSync(file, `${line}\n`);
    }
  }
  installDebian([`postgresql-${version}`], say);
}

/** The version that made the data in a folder; null where there is none. */
export function dataVersion(dataDir) {
  try {
    return Number(fs.readFileSync(path.join(dataDir, 'PG_VERSION'), 'utf8').trim()) || null;
  } catch {
    return null;
  }
}
