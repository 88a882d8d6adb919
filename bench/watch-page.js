/*
 * Runs in a page from its first moment on: when a line of Today stands and the page answers, and how long each touch takes
 * until the next frame is painted (Event Timing, W3C).
 */
const seen = { interactive: 0, touches: [] };
Object.assign(window, {
  seen,
  // What the compiler of the bench puts around functions that it sends to the page.
  __name: (one) => one,
});
function look() {
  if (!document.querySelector('.line')) return void requestAnimationFrame(look);
  // Not before what is under way has ended: until then no touch would be answered.
  setTimeout(() => (seen.interactive = performance.now()));
}
requestAnimationFrame(look);
new PerformanceObserver((list) => {
  for (const entry of list.getEntries()) if (entry.interactionId) seen.touches.push(entry.duration);
}).observe({ type: 'event', durationThreshold: 16, buffered: true });
