import { PiniaColada, useQueryCache } from '@pinia/colada';
import { createPinia } from 'pinia';
import { flushPromises, mount } from '@vue/test-utils';
import { expect, test } from 'vitest';
import { defineComponent, h, ref } from 'vue';
import { usePages } from './usePages.ts';

const LAST = 6;

/** A page that shows a list of six parts, as far as it was asked for, and what was asked of the server. */
async function page() {
  const asked: string[] = [];
  const filter = ref('all');
  let pages!: ReturnType<typeof usePages<{ part: string; next: string | null }>>;
  let cache!: ReturnType<typeof useQueryCache>;
  mount(
    defineComponent(() => {
      cache = useQueryCache();
      pages = usePages(
        () => ['animals', filter.value],
        ({ limit, after = '1' }) => {
          asked.push(after);
          expect(limit).toBe('7');
          const part = `${filter.value} ${after}`;
          return Promise.resolve({ part, next: Number(after) < LAST ? String(Number(after) + 1) : null });
        },
        { size: 7 },
      );
      return () => h('p');
    }),
    { global: { plugins: [createPinia(), PiniaColada] } },
  );
  await flushPromises();
  return {
    asked: () => asked.splice(0).join(''),
    filter,
    shown: () => (pages.data.value ?? []).map(({ part }) => part.split(' ')[1]).join(''),
    async more() {
      pages.more();
      await flushPromises();
    },
    async invalidate() {
      await cache.invalidateQueries({ key: ['animals'] });
      await flushPromises();
    },
  };
}

test('each further part is asked for once, and the end is the end', async () => {
  const { asked, more, shown } = await page();
  for (let i = 0; i < LAST + 2; i++) await more();
  expect(asked()).toBe('123456');
  expect(shown()).toBe('123456');
});

test('what went stale is read anew as far as it is shown, and goes on from there', async () => {
  const { asked, more, shown, invalidate } = await page();
  await more();
  await more();
  expect(asked()).toBe('123');
  await invalidate();
  expect(asked()).toBe('123');
  await more();
  expect(asked()).toBe('4');
  expect(shown()).toBe('1234');
});

test('another filter begins with the first part', async () => {
  const { asked, more, shown, filter } = await page();
  await more();
  filter.value = 'males';
  await flushPromises();
  expect(asked()).toBe('121');
  expect(shown()).toBe('1');
});
