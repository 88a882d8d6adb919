/*
 * Asks /health over and over until it is told to stop, then says how it went. In a thread of its own: what the rest of the test
 * computes must not be taken for the server's slowness.
 */
import http from 'node:http';
import { performance } from 'node:perf_hooks';
import { parentPort, workerData } from 'node:worker_threads';

const PAUSE_MS = 20;
/** Answers slower than this are told one by one. */
const SLOW_MS = 150;
const agent = new http.Agent({ keepAlive: true, maxSockets: 1 });

/** @returns {Promise<number>} the status */
const ask = () =>
  new Promise((resolve, reject) => {
    const request = http.get(workerData.url, { agent }, (response) => {
      response.resume();
      response.on('end', () => resolve(response.statusCode ?? 0));
    });
    request.on('error', reject);
  });

let isOver = false;
parentPort?.once('message', () => (isOver = true));
let slowestMs = 0;
const failures = [];
const slow = [];
while (!isOver) {
  const began = performance.now();
  const at = Date.now();
  try {
    const status = await ask();
    const ms = performance.now() - began;
    slowestMs = Math.max(slowestMs, ms);
    if (ms > SLOW_MS) slow.push({ at, ms });
    if (status !== 200) failures.push(`/health answered ${status}`);
  } catch (error) {
    failures.push(`/health: ${String(error)}`);
  }
  await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
}
agent.destroy();
parentPort?.postMessage({ slowestMs, failures, slow });
