import { ROUTES } from '@karyotome/contract';
import { PiniaColada, useQuery } from '@pinia/colada';
import { flushPromises, mount } from '@vue/test-utils';
import { createPinia } from 'pinia';
import { afterEach, expect, test, vi } from 'vitest';
import { defineComponent, h } from 'vue';
import { ProblemError } from '../api/client.ts';
import { noteWritten, takeWritten } from '../api/written.ts';
import { useWrite } from './useWrite.ts';

afterEach(() => takeWritten());

/** A page that shows two reads and runs one write. */
async function page(send: () => Promise<string>) {
  const reads = { ladders: vi.fn().mockResolvedValue([]), calendarFeeds: vi.fn().mockResolvedValue([]) };
  let write!: ReturnType<typeof useWrite<[], string>>;
  mount(
    defineComponent(() => {
      write = useWrite(send);
      for (const [key, query] of Object.entries(reads)) useQuery({ key: [key], query });
      return () => h('p');
    }),
    { global: { plugins: [createPinia(), PiniaColada] } },
  );
  await flushPromises();
  const counts = () => Object.values(reads).map(({ mock }) => mock.calls.length);
  return { write, reads, counts };
}
const refusal = new ProblemError({
  type: 'x',
  title: 'No',
  status: 422,
  errors: [{ field: 'name', code: 'empty', message: 'is empty' }],
});

test('what is made of what was written is read anew, the rest is left alone', async () => {
  const { write, counts } = await page(async () => {
    noteWritten(ROUTES.addLadder);
    return 'done';
  });
  expect(counts()).toEqual([1, 1]);
  expect(await write.run()).toEqual({ value: 'done' });
  expect(counts()).toEqual([2, 1]);
});

test('a refusal is said by field, and nothing is read anew', async () => {
  const { write, counts } = await page(() => Promise.reject(refusal));
  expect(await write.run()).toBeNull();
  expect(write.errorsOf('name')).toEqual(['is empty']);
  expect(write.status.value).toBe(422);
  expect(write.general(['name'])).toBeNull();
  expect(write.general([])).toBe('name is empty');
  expect(counts()).toEqual([1, 1]);
  write.reset();
  expect(write.failed.value).toBe(false);
});

test('a second touch while it runs sends nothing', async () => {
  let finish!: (value: string) => void;
  const send = vi.fn(() => new Promise<string>((resolve) => (finish = resolve)));
  const { write } = await page(send);
  const first = write.run();
  expect(await write.run()).toBeNull();
  finish('done');
  expect(await first).toEqual({ value: 'done' });
  expect(send).toHaveBeenCalledTimes(1);
});

test('that something cannot be read anew does not undo the write; a fault of ours is not swallowed', async () => {
  const { write, reads } = await page(async () => {
    noteWritten(ROUTES.addLadder);
    return 'done';
  });
  reads.ladders.mockRejectedValue(new ProblemError({ type: 'x', title: 'Away', status: 503 }));
  expect(await write.run()).toEqual({ value: 'done' });
  const broken = await page(() => Promise.reject(new TypeError('ours')));
  await expect(broken.write.run()).rejects.toThrow('ours');
});
