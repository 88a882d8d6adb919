import { gunzipSync } from 'node:zlib';
import { describe, expect, test } from 'vitest';
import { toPageName } from '../src/domain/collection/page-name.ts';
import { createPageCache } from '../src/features/pages/page-cache.ts';

describe('kept pages', () => {
  test('are made once for each revision, however many ask, and asked about once a second', async () => {
    let now = 0;
    const cache = createPageCache(() => now);
    const asked = { revision: 0, made: 0 };
    let revision = 'a';
    const ask = () =>
      cache(
        'key',
        () => Promise.resolve((asked.revision++, { revision })),
        () => {
          const bytes = Buffer.from(`page ${++asked.made}`);
          return Promise.resolve({ revision, status: 200, type: 'text/html', bytes });
        },
      );
    await ask();
    await Promise.all(Array.from({ length: 50 }, ask));
    expect(asked).toEqual({ revision: 1, made: 1 });
    now += 1_000;
    await Promise.all(Array.from({ length: 50 }, ask));
    expect(asked).toEqual({ revision: 2, made: 1 });
    now += 1_000;
    revision = 'b';
    const page = await ask();
    expect(gunzipSync(page.zipped).toString()).toBe('page 2');
  });

  test('that could not be made are made by whoever asks next', async () => {
    const cache = createPageCache();
    const fail = (): Promise<never> => Promise.reject(new Error('away'));
    await expect(cache('k', () => Promise.resolve({ revision: 'a' }), fail)).rejects.toThrow('away');
    await expect(cache('k', fail, fail)).rejects.toThrow('away');
    const made = { revision: 'a', status: 200, type: 'text/plain', bytes: Buffer.from('x') };
    expect(
      await cache(
        'k',
        () => Promise.resolve({ revision: 'a' }),
        () => Promise.resolve(made),
      ),
    ).toMatchObject({ revision: 'a' });
  });
});

test.each([
  ['Thistlecote Burrow', 'thistlecote-burrow'],
  ['Élan & Söhne', 'elan-sohne'],
  ['  --  ', 'collection'],
  ['ab', 'collection-ab'],
  ['x'.repeat(80), 'x'.repeat(40)],
])('the name of a front page: %s', (name, pageName) => {
  expect(toPageName(name)).toBe(pageName);
});
