import { readdirSync, readFileSync } from 'node:fs';
import http from 'node:http';
import { signIn } from '../server/test/hostile/raw-request.ts';
import { startServer, type RunningServer } from './server.ts';
import { expect, test } from './test.ts';

/* Several processes behind one port: what one of them is told the others tell too, and one that is killed is replaced. */

const PROCESSES = 3;
const STREAMS = 9;

/** The processes that serve, by what the system says of whose children they are. */
function servingPids({ pid }: RunningServer): number[] {
  return readdirSync('/proc')
    .map(Number)
    .filter((one) => Number.isInteger(one) && one > 0)
    .filter((one) => {
      try {
        const [, parent] = /\) \S (\d+)/.exec(readFileSync(`/proc/${one}/stat`, 'utf8')) ?? [];
        return Number(parent) === pid;
      } catch {
        // It has ended meanwhile.
        return false;
      }
    });
}

/** Watches the collection over a connection of its own, so that each process has some. */
function watch(
  origin: string,
  headers: Record<string, string>,
): { heard: () => string; isOver: () => boolean } {
  let heard = '';
  let isOver = false;
  const request = http.get(`${origin}/api/v1/changes`, { headers, agent: new http.Agent() }, (response) => {
    response.on('data', (part) => (heard += String(part)));
    response.on('close', () => (isOver = true));
    response.on('error', () => (isOver = true));
  });
  request.on('error', () => (isOver = true));
  return { heard: () => heard, isOver: () => isOver };
}

test('three processes serve as one, tell one another of changes, and replace one that is killed', async () => {
  const server = await startServer('demo', { PROCESSES: String(PROCESSES) });
  try {
    const { origin, email, password } = server;
    const { ask, headers } = await signIn(origin, email, password);
    const animals = (await ask('GET', '/animals?limit=5')).body as { items: { id: string }[] };
    const [first] = animals.items;

    await test.step('a change is heard by whoever watches, in whatever process', async () => {
      const streams = Array.from({ length: STREAMS }, () => watch(origin, headers));
      await expect.poll(() => streams.every((one) => one.heard().includes(': watching'))).toBe(true);
      const today = ((await ask('GET', '/today')).body as { today: string }).today;
      const weight = { kind: 'weight', on: today, body: { massG: 1500 } };
      expect((await ask('POST', `/animals/${first!.id}/records`, weight)).status).toBe(201);
      await expect.poll(() => streams.every((one) => one.heard().includes('event: change'))).toBe(true);
    });

    await test.step('one that is killed is replaced, and the others go on', async () => {
      await expect.poll(() => servingPids(server).length).toBe(PROCESSES);
      const [victim] = servingPids(server);
      process.kill(victim!, 'SIGKILL');
      const answers = await Promise.all(
        Array.from({ length: 40 }, () => ask('GET', '/racks').catch(() => ask('GET', '/racks'))),
      );
      expect(answers.map(({ status }) => status).every((status) => status === 200)).toBe(true);
      await expect.poll(() => servingPids(server).filter((pid) => pid !== victim).length).toBe(PROCESSES);
    });

    await test.step('whoever signs out is signed out everywhere, and stops watching', async () => {
      const streams = Array.from({ length: STREAMS }, () => watch(origin, headers));
      await expect.poll(() => streams.every((one) => one.heard().includes(': watching'))).toBe(true);
      expect((await ask('DELETE', '/session')).status).toBe(204);
      await expect.poll(() => streams.every((one) => one.isOver())).toBe(true);
    });
  } finally {
    await server.stop();
  }
});
