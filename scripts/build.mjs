/* Builds the interface and bundles the server with its workspace packages; npm packages stay outside the bundle. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT } from './root.mjs';

const SOURCES = [
  'core/src',
  'contract/src',
  'lineage/src',
  'words/src',
  'server/src',
  'web/src',
  'web/public',
  'web/index.html',
  'web/vite.config.ts',
  'package-lock.json',
  'scripts/build.mjs',
];
const STAMP = path.join(ROOT, 'server/dist/built-from');

/** A fingerprint of everything the build is made from. */
function fingerprint() {
  const hash = createHash('sha256');
  const visit = (file) => {
    const stat = fs.statSync(file);
    if (stat.isDirectory())
      for (const entry of fs.readdirSync(file).toSorted()) visit(path.join(file, entry));
    else hash.update(path.relative(ROOT, file)).update(fs.readFileSync(file));
  };
  for (const source of SOURCES) if (fs.existsSync(path.join(ROOT, source))) visit(path.join(ROOT, source));
  return hash.digest('hex');
}

async function bundleServer() {
  const { rolldown } = await import('rolldown');
  const bundle = await rolldown({
    input: {
      main: path.join(ROOT, 'server/src/main.ts'),
      demo: path.join(ROOT, 'server/src/demo/main.ts'),
      admin: path.join(ROOT, 'server/src/admin.ts'),
      'engine.worker': path.join(ROOT, 'server/src/domain/genetics/engine.worker.ts'),
      'backup.worker': path.join(ROOT, 'server/src/backup/backup.worker.ts'),
      'export.worker': path.join(ROOT, 'server/src/export/export.worker.ts'),
      'import.worker': path.join(ROOT, 'server/src/export/import.worker.ts'),
      'tasks.worker': path.join(ROOT, 'server/src/threads/tasks.worker.ts'),
    },
    platform: 'node',
    external: (id) => !id.startsWith('.') && !path.isAbsolute(id) && !id.startsWith('@karyotome/'),
    logLevel: 'warn',
  });
  await bundle.write({ dir: path.join(ROOT, 'server/dist'), format: 'esm', cleanDir: true, sourcemap: true });
  await bundle.close();
}

/** Builds when the sources changed since the last build. */
export async function build(say = console.log) {
  const wanted = fingerprint();
  if (
    fs.existsSync(STAMP) &&
    fs.readFileSync(STAMP, 'utf8') === wanted &&
    fs.existsSync(path.join(ROOT, 'web/dist/index.html'))
  )
    return;
  say('Building');
  const vite = spawnSync(
    process.execPath,
    [path.join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', 'web', '--logLevel', 'warn'],
    // Whoever builds: a test runner would make another application of it.
    { cwd: ROOT, encoding: 'utf8', env: { ...process.env, NODE_ENV: 'production' } },
  );
  if (vite.status !== 0) throw new Error(`The interface could not be built:\n${vite.stdout}${vite.stderr}`);
  await bundleServer();
  fs.writeFileSync(STAMP, wanted);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await build();
