/* Installs npm packages when they are missing or older than the lock file. Imports nothing but Node. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { ROOT } from './root.mjs';

const STAMP = path.join(ROOT, 'node_modules', '.installed-from');

export function installPackages(say = console.log) {
  const wanted = createHash('sha256')
    .update(fs.readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (fs.existsSync(STAMP) && fs.readFileSync(STAMP, 'utf8') === wanted) return;
  say('Installing npm packages (a minute or two, once)');
  // No package needs its install script, and none is run.
  const result = spawnSync('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund'], {
    cwd: ROOT,
    encoding: 'utf8',
  });
  if (result.status !== 0) throw new Error(`npm ci failed:\n${(result.stdout + result.stderr).slice(-3000)}`);
  fs.writeFileSync(STAMP, wanted);
}
