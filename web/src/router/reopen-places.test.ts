import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';
import { reopenPlaces } from './reopen-places.ts';

/* A place whose code does not arrive is opened anew, once; then it is said. */

const assign = vi.fn<(address: string) => void>();
const say = vi.fn<() => void>();
let failure: Error;
let router: Router;

beforeEach(() => {
  vi.stubGlobal('location', { assign });
  sessionStorage.clear();
  failure = new Error('did not arrive');
  router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: {} },
      { path: '/far', component: () => Promise.reject(failure) },
    ],
  });
  reopenPlaces(router, say);
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.clearAllMocks();
});

/** As Vite tells of it. */
function tell(error: Error): void {
  window.dispatchEvent(Object.assign(new Event('vite:preloadError'), { payload: error }));
}
const go = (): Promise<unknown> => router.push('/far?one=1').catch(() => undefined);

test('it is opened anew once, with all that its address says', async () => {
  tell(failure);
  await go();
  expect(assign.mock.calls).toEqual([['/far?one=1']]);
  expect(say).not.toHaveBeenCalled();
  await go();
  expect(assign).toHaveBeenCalledTimes(1);
  expect(say).toHaveBeenCalledTimes(1);
});

test('any other fault of a place opens nothing', async () => {
  await go();
  expect(assign).not.toHaveBeenCalled();
  expect(say).not.toHaveBeenCalled();
});
