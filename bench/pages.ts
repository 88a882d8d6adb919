/*
 * npm run bench:pages: how many public pages a second are served to 50 visitors at once, server, database and visitors on
 * the same cores, as a ratio to the smallest answer that the same server gives in the same run; and how large a page is.
 */
import http from 'node:http';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import setup from '../e2e/global-setup.ts';
import { startServer } from '../e2e/server.ts';
import { stopPostgres } from '../scripts/postgres.mjs';
import { ROOT } from '../scripts/root.mjs';

const VISITORS = 50;
const SECONDS = 8;
/** Of pages on two cores, and of one page without its pictures. */
const LEAST_A_SECOND = 1_000;
const MOST_BYTES = 30_000;

const agent = new http.Agent({ keepAlive: true, maxSockets: VISITORS });

function ask(origin: string, path: string): Promise<void> {
  return new Promise((resolve, reject) => {
    http
      .get(`${origin}${path}`, { agent, headers: { 'Accept-Encoding': 'gzip' } }, (response) => {
        response.resume();
        response.on('end', () =>
          response.statusCode === 200 ? resolve() : reject(new Error(`${path}: ${response.statusCode}`)),
        );
      })
      .on('error', reject);
  });
}

/** Answers a second in a closed loop. */
async function rate(origin: string, path: string): Promise<number> {
  await ask(origin, path);
  const until = Date.now() + SECONDS * 1000;
  let answered = 0;
  await Promise.all(
    Array.from({ length: VISITORS }, async () => {
      while (Date.now() < until) {
        await ask(origin, path);
        answered++;
      }
    }),
  );
  return answered / SECONDS;
}

const teardown = await setup();
const server = await startServer('demo');
try {
  const feed = (await (await fetch(`${server.origin}/c/thistlecote-burrow/feed.json`)).json()) as {
    items: { url: string }[];
  };
  const page = new URL(feed.items[0]!.url).pathname;
  const smallest = await rate(server.origin, '/mark.svg');
  const lines = [
    '# Public pages',
    '',
    `${VISITORS} visitors at once, server, database and visitors on the same cores.`,
    '',
  ];
  lines.push('| page | a second | of the smallest file | gzip, kB |', '|---|---|---|---|');
  for (const path of [page, '/c/thistlecote-burrow', '/c/thistlecote-burrow/feed.json']) {
    const found = await rate(server.origin, path);
    const size = gzipSync(Buffer.from(await (await fetch(`${server.origin}${path}`)).arrayBuffer())).length;
    const name = path === page ? 'an animal' : path;
    lines.push(
      `| ${name} | ${found.toFixed(0)} | ${(found / smallest).toFixed(2)} | ${(size / 1000).toFixed(1)} |`,
    );
    if (found < LEAST_A_SECOND || size > MOST_BYTES) {
      console.error(`${name}: ${found.toFixed(0)} a second, ${size} bytes: outside its limits`);
      process.exitCode = 1;
    }
  }
  console.log(lines.join('\n'));
  mkdirSync(join(ROOT, 'bench/results'), { recursive: true });
  writeFileSync(join(ROOT, 'bench/results/pages.md'), `${lines.join('\n')}\n`);
} finally {
  agent.destroy();
  await server.stop();
  await teardown();
  await stopPostgres('tests').catch(() => undefined);
}
