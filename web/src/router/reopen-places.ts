import type { Router } from 'vue-router';

/** Tried once in this time: what fails again would fail for ever. */
const AGAIN_MS = 20_000;
const KEY = 'karyotome.reopened';

/**
 * Opens a place anew whose code did not arrive: over a bad line, or after an upgrade under another name. What was typed is kept
 * by its draft. Where it fails again it is said.
 *
 * @param say - tells whoever is there
 */
export function reopenPlaces(router: Router, say: () => void): void {
  const failures = new WeakSet<Error>();
  window.addEventListener('vite:preloadError', ({ payload }) => failures.add(payload));
  router.onError((error: unknown, to) => {
    if (!(error instanceof Error) || !failures.has(error)) return;
    const last = Number(sessionStorage.getItem(KEY) ?? 0);
    if (Date.now() - last < AGAIN_MS) return say();
    sessionStorage.setItem(KEY, String(Date.now()));
    window.location.assign(to.fullPath);
  });
}
