/*
 * One process at a time starts or stops what lies in a folder. The lock is a socket in Linux's abstract namespace (unix(7)):
 * it is no file, so a full disk cannot keep it from being taken, and it goes with the process that holds it, however that ends.
 * It is named by the folder's own identity, so a copy of the folder has another.
 */
import fs from 'node:fs';
import net from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';

const WAIT_MS = 60_000;
const AGAIN_MS = 100;

/**
 * @template T
 * @param {string} folder - made where it is missing
 * @param {() => Promise<T>} action
 * @returns {Promise<T>}
 */
export async function withLock(folder, action) {
  fs.mkdirSync(folder, { recursive: true });
  const { dev, ino } = fs.statSync(folder);
  const name = `\0karyotome-${dev}-${ino}`;
  const until = Date.now() + WAIT_MS;
  let lock = await take(name);
  while (!lock) {
    if (Date.now() > until)
      throw new Error(`Another process has been starting or stopping what lies in ${folder} for a minute.`);
    await sleep(AGAIN_MS);
    lock = await take(name);
  }
  try {
    return await action();
  } finally {
    await new Promise((resolve) => lock.close(resolve));
  }
}

function take(name) {
  return new Promise((resolve, reject) => {
    const server = net.createServer((socket) => socket.destroy());
    server.once('error', (error) => (error.code === 'EADDRINUSE' ? resolve(null) : reject(error)));
    server.listen(name, () => resolve(server));
    // Whoever holds it for a moment must not be kept alive by it.
    server.unref();
  });
}
