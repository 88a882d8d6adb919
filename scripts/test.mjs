/*
 * npm test: lint, types, unit and API tests, interface tests. Installs what it needs. The last line counts the real
 * results; it exits non-zero when anything failed or nothing ran.
 */
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { installPackages } from './install.mjs';
import { installClusterPackages } from './cluster-packages.mjs';
import { installDebian, SetupError } from './debian.mjs';
import { stopPostgres } from './postgres.mjs';
import { ROOT } from './root.mjs';

const RESULTS = path.join(ROOT, '.data', 'test-results');
const tally = { passed: 0, failed: 0, skipped: 0 };

function add({ passed = 0, failed = 0, skipped = 0 }) {
  tally.passed += passed;
  tally.failed += failed;
  tally.skipped += skipped;
}

/** Runs a script, keeping what it prints. */
function runQuietly(title, script) {
  return new Promise((resolve) => {
    const child = spawn('npm', ['run', '--silent', script], { cwd: ROOT });
    const output = [];
    child.stdout.on('data', (part) => output.push(part));
    child.stderr.on('data', (part) => output.push(part));
    child.on('close', (status) => resolve({ title, output: Buffer.concat(output), isOk: status === 0 }));
  });
}

/**
 * Runs chains of checks beside each other, a core for each; what they print comes one after the other. None has a count of
 * its own: one passed or one failed.
 */
async function checkTogether(chains) {
  const runs = chains.map(async (chain) => {
    const results = [];
    for (const [title, script] of chain) results.push(await runQuietly(title, script));
    return results;
  });
  for (const { title, output, isOk } of (await Promise.all(runs)).flat()) {
    console.log(`\n== ${title}`);
    process.stdout.write(output);
    add(isOk ? { passed: 1 } : { failed: 1 });
  }
}

function run(title, command, args, env = {}) {
  console.log(`\n== ${title}`);
  const result = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...env } });
  return result.status === 0;
}

function readJson(file) {
  try {
    return JSON.parse(fs.readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

/** A runner's own count; a runner that failed without a failed test, or ran nothing, counts as one failure. */
function addRunner(isOk, counts) {
  const ranNothing = !counts || counts.passed + counts.failed === 0;
  const failed = counts?.failed ?? 0;
  add({
    passed: counts?.passed ?? 0,
    skipped: counts?.skipped ?? 0,
    failed: failed === 0 && (!isOk || ranNothing) ? 1 : failed,
  });
}

function vitestCounts(report) {
  if (!report) return null;
  const brokenFiles = report.testResults.filter(
    (file) => file.status === 'failed' && !file.assertionResults.some((test) => test.status === 'failed'),
  ).length;
  return {
    passed: report.numPassedTests,
    failed: report.numFailedTests + brokenFiles,
    skipped: report.numPendingTests + report.numTodoTests,
  };
}

function playwrightCounts(report) {
  if (!report) return null;
  const { expected, flaky, unexpected, skipped } = report.stats;
  return { passed: expected, failed: unexpected + flaky, skipped };
}

async function main() {
  installPackages();
  if (!fs.existsSync('/usr/bin/chromium')) installDebian(['chromium'], console.log);
  // Computes pedigree likelihoods independently: the engine is held against it.
  const judges = {
    mlink: 'fastlink',
    pdftotext: 'poppler-utils',
    exiftool: 'libimage-exiftool-perl',
    zip: 'zip',
    unzip: 'unzip',
    'plink1.9': 'plink1.9',
  };
  for (const [program, name] of Object.entries(judges))
    if (!fs.existsSync(`/usr/bin/${program}`)) installDebian([name], console.log);
  fs.rmSync(RESULTS, { recursive: true, force: true });
  fs.mkdirSync(RESULTS, { recursive: true });
  await checkTogether([
    [['rules', 'lint:rules']],
    [
      ['types', 'types'],
      ['layers', 'lint:layers'],
      ['format', 'lint:format'],
    ],
  ]);
  const unit = path.join(RESULTS, 'vitest.json');
  const unitOk = run('unit and API tests', 'npx', [
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${unit}`,
  ]);
  addRunner(unitOk, vitestCounts(readJson(unit)));
  const { build } = await import('./build.mjs');
  await build();
  const ui = path.join(RESULTS, 'playwright.json');
  const uiOk = run(
    'interface tests',
    'npx',
    ['playwright', 'test', '-c', 'e2e/playwright.config.ts', '--reporter=list,json'],
    { PLAYWRIGHT_JSON_OUTPUT_FILE: ui },
  );
  addRunner(uiOk, playwrightCounts(readJson(ui)));
  testCluster();
}

/** The cluster, in short: where its packages are there or can be installed. Its checks count as one. */
function testCluster() {
  try {
    installClusterPackages(console.log);
  } catch (error) {
    if (!(error instanceof SetupError)) throw error;
    console.log(`\nThe cluster was not tested. ${error.message}`);
    return;
  }
  const isOk = run('cluster', process.execPath, ['scripts/cluster.mjs', 'test'], { SHORT: '1' });
  add(isOk ? { passed: 1 } : { failed: 1 });
}

try {
  await main();
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  add({ failed: 1 });
}
await stopPostgres('tests').catch(() => undefined);
if (tally.passed === 0 && tally.failed === 0) add({ failed: 1 });
console.log(
  `\n${tally.passed} passed, ${tally.failed} failed${tally.skipped > 0 ? `, ${tally.skipped} skipped` : ''}`,
);
process.exitCode = tally.failed > 0 ? 1 : 0;
