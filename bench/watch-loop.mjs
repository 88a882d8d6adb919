/* Loaded into the server by the benchmarks: tells how long its main thread kept anybody waiting, and its memory. */
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { isMainThread } from 'node:worker_threads';

/** Resolution in milliseconds; what a timer waits for itself is taken off. */
const EVERY_MS = 5;

if (isMainThread && process.send) {
  const delay = monitorEventLoopDelay({ resolution: EVERY_MS });
  delay.enable();
  let rss = 0;
  setInterval(() => (rss = Math.max(rss, process.memoryUsage().rss)), 200).unref();
  process.on('message', () => {
    process.send({
      delayP99: Math.max(0, delay.percentile(99) / 1e6 - EVERY_MS),
      delayMax: Math.max(0, delay.max / 1e6 - EVERY_MS),
      rssMb: Math.max(rss, process.memoryUsage().rss) / 1e6,
    });
    delay.reset();
    rss = 0;
  });
  // The channel alone does not keep the server running.
  process.channel?.unref();
}
