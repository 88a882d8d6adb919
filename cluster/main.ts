/* npm run cluster: starts it all, prints the address, and stops it all at Ctrl-C. The data stays in .data/cluster. */
import { join } from 'node:path';
import { isPortFree } from '../scripts/ports.mjs';
import { ROOT } from '../scripts/root.mjs';
import { Cluster } from './cluster.ts';

const port = Number(process.env['PORT'] ?? 4180);
const folder = join(ROOT, '.data', 'cluster');

async function run(): Promise<void> {
  if (!(await isPortFree(port)))
    throw new Error(`Port ${port} is taken. Stop what uses it, or choose another: PORT=4190 npm run cluster`);
  const cluster = await Cluster.start(folder, port, console.log);
  const [email, password] = cluster.application.signIn();
  console.log(`\nKaryotome is at ${cluster.origin}`);
  console.log(`Sign in as ${email} with ${password}`);
  console.log(`${(await cluster.primary()).name} is the primary. Logs are in ${folder}.`);
  console.log('Ctrl-C stops it.');
  await new Promise((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, resolve);
  });
  console.log('Stopping');
  await cluster.stop();
}

try {
  await run();
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
