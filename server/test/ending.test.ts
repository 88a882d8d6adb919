import { expect, test } from 'vitest';
import { endInOrder } from '../src/ending.ts';

/* A server that was told to stop ends, whatever one of its parts does. */

const LIMIT_MS = 60_000;

test('parts end one after another, and a fault in one does not keep the others', async () => {
  const ended: string[] = [];
  const faults: unknown[] = [];
  const part = (name: string, isFaulty = false) => ({
    name,
    end: async () => {
      await Promise.resolve();
      ended.push(name);
      if (isFaulty) throw new Error('cannot');
    },
  });
  expect(await endInOrder([part('a'), part('b', true), part('c')], LIMIT_MS, (one) => faults.push(one))).toBe(
    false,
  );
  expect(ended).toEqual(['a', 'b', 'c']);
  expect(faults).toMatchObject([{ message: 'Ending failed: b', cause: { message: 'cannot' } }]);
  expect(await endInOrder([part('a'), part('c')], LIMIT_MS, (one) => faults.push(one))).toBe(true);
  expect(faults).toHaveLength(1);
});

test('a part that never ends is named, and not waited for', async () => {
  const faults: Error[] = [];
  const hanging = { name: 'what hangs', end: () => new Promise(() => undefined) };
  const done = { name: 'what ended', end: () => Promise.resolve() };
  expect(await endInOrder([done, hanging, done], 1, (one) => faults.push(one as Error))).toBe(false);
  expect(faults.map(({ message }) => message)).toEqual([
    'The process ends without waiting any longer for: what hangs',
  ]);
});
