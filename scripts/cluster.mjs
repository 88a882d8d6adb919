/*
 * npm run cluster and npm run test:cluster: installs what is missing, builds, and hands over to cluster/. Imports nothing but
 * Node, since it runs before npm packages are there.
 */
import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { installClusterPackages } from './cluster-packages.mjs';
import { installPackages } from './install.mjs';
import { ROOT } from './root.mjs';

const [program = 'main'] = process.argv.slice(2);
try {
  installPackages();
  installClusterPackages(console.log);
  const { build } = await import('./build.mjs');
  await build();
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}
// Ctrl-C reaches the program itself, which stops what it has started.
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => undefined);
const { status } = spawnSync(
  process.execPath,
  ['--import', 'tsx', path.join(ROOT, 'cluster', `${program}.ts`)],
  { cwd: ROOT, stdio: 'inherit' },
);
process.exit(status ?? 1);
