import { TAGS } from '@karyotome/contract';
import { PiniaColada, useQuery } from '@pinia/colada';
import { createPinia } from 'pinia';
import { flushPromises, mount } from '@vue/test-utils';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { defineComponent, h } from 'vue';
import { PAGE_ID } from '../api/client.ts';
import { useLiveUpdates } from './useLiveUpdates.ts';

/** The browser's event source, played by the test. */
class FakeSource extends EventTarget {
  static last: FakeSource;
  readonly url: string;
  isClosed = false;
  constructor(url: string) {
    super();
    this.url = url;
    FakeSource.last = this;
  }
  close(): void {
    this.isClosed = true;
  }
  say(type: string, data?: unknown): void {
    this.dispatchEvent(new MessageEvent(type, { data: JSON.stringify(data) }));
  }
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('EventSource', FakeSource);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** A page that shows the ladders and the calendar addresses, and how often each was read. */
async function page() {
  const ladders = vi.fn().mockResolvedValue([]);
  const calendarFeeds = vi.fn().mockResolvedValue([]);
  const wrapper = mount(
    defineComponent(() => {
      useLiveUpdates();
      useQuery({ key: ['ladders'], query: ladders });
      useQuery({ key: ['calendarFeeds'], query: calendarFeeds });
      return () => h('p');
    }),
    { global: { plugins: [createPinia(), PiniaColada] } },
  );
  await flushPromises();
  const settle = async (): Promise<[number, number]> => {
    await vi.advanceTimersByTimeAsync(1000);
    return [ladders.mock.calls.length, calendarFeeds.mock.calls.length];
  };
  return { wrapper, settle };
}

test('of what somebody else changed, only what is made of it is read anew', async () => {
  const { settle } = await page();
  expect(await settle()).toEqual([1, 1]);
  FakeSource.last.say('change', { tags: ['enclosures'] });
  expect(await settle()).toEqual([2, 1]);
  FakeSource.last.say('change', { tags: ['observations', 'records'] });
  expect(await settle()).toEqual([2, 1]);
});

test('an animal’s page reads nothing anew when another animal was weighed or fed', async () => {
  const animal = vi.fn().mockResolvedValue({});
  mount(
    defineComponent(() => {
      useLiveUpdates();
      useQuery({ key: ['animal', 'a'], query: animal });
      return () => h('p');
    }),
    { global: { plugins: [createPinia(), PiniaColada] } },
  );
  await flushPromises();
  const times = async (...events: object[]): Promise<number> => {
    for (const event of events) FakeSource.last.say('change', event);
    await vi.advanceTimersByTimeAsync(1000);
    return animal.mock.calls.length;
  };
  expect(await times({ tags: ['records'], animals: ['b'] })).toBe(1);
  expect(await times({ tags: ['records'], animals: ['b', 'a'] })).toBe(2);
  // Together with something that names nobody, it may be anything.
  expect(await times({ tags: ['records'], animals: ['b'] }, { tags: ['eggs'] })).toBe(3);
});

test('several changes in a row are one', async () => {
  const { settle } = await page();
  for (let i = 0; i < 5; i++) FakeSource.last.say('change', { tags: ['enclosures'] });
  FakeSource.last.say('change', { tags: ['calendars'] });
  expect(await settle()).toEqual([2, 2]);
});

test('connected again after a break, all may have changed; at first nothing has', async () => {
  const { settle } = await page();
  FakeSource.last.say('open');
  expect(await settle()).toEqual([1, 1]);
  FakeSource.last.say('open');
  expect(await settle()).toEqual([2, 2]);
});

test('the server is told which page watches, and the watch ends with the page', async () => {
  const { wrapper } = await page();
  expect(FakeSource.last.url).toContain(PAGE_ID);
  wrapper.unmount();
  expect(FakeSource.last.isClosed).toBe(true);
  expect(TAGS.length).toBe(new Set(TAGS).size);
});
