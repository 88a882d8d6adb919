import {
  ANN,
  idOf,
  kept,
  opened,
  queuedBy,
  record,
  sessionOf,
  settled,
  subject,
  unreachable,
  withEmptyDevice,
} from '../../test/round-queue.ts';
import type { RoundResult } from '@karyotome/contract';
import { expect, test, vi } from 'vitest';
import { api } from '../api/resources.ts';

withEmptyDevice();

test('an entry lies on the device before it is sent, and goes once the server has answered for it', async () => {
  const send = vi.spyOn(api, 'sendRound').mockImplementation(async (entries) => {
    expect(await queuedBy(ANN)).toHaveLength(1);
    return { results: kept(entries) };
  });
  const { queue } = opened();
  const key = await queue.add(subject, record);
  await settled(queue);
  expect(send).toHaveBeenCalledWith([{ key, animalId: subject.animalId, record }], idOf(ANN));
  expect(await queuedBy(ANN)).toEqual([]);
  expect(queue.sent.map((one) => one.recordId)).toEqual([`record-${key}`]);
});

test('without a connection it waits, outlives the page, and is sent with the same key and in its order', async () => {
  const send = vi.spyOn(api, 'sendRound').mockRejectedValue(unreachable);
  const first = opened();
  const keys = [
    await first.queue.add(subject, record),
    await first.queue.add({ ...subject, number: 'N-2' }, record),
  ];
  await settled(first.queue);
  expect(first.queue.isOffline).toBe(true);
  expect(first.queue.waiting).toHaveLength(2);
  send.mockImplementation(async (entries) => ({ results: kept(entries) }));
  const second = opened();
  await second.queue.start();
  await vi.waitFor(() => expect(second.queue.waiting).toHaveLength(0));
  expect(send.mock.lastCall![0].map(({ key }) => key)).toEqual(keys);
});

test('an entry whose page was closed before the device had written it is there when the page is opened again', async () => {
  vi.spyOn(api, 'sendRound').mockRejectedValue(unreachable);
  // For a page that is closed, what it waited for never comes.
  const never = new Promise<never>(() => undefined) as unknown as IDBRequest<IDBValidKey>;
  const add = vi.spyOn(IDBObjectStore.prototype, 'add').mockReturnValue(never);
  void opened().queue.add(subject, record);
  await vi.waitFor(() => expect(add).toHaveBeenCalled());
  add.mockRestore();
  const second = opened();
  await second.queue.start();
  await settled(second.queue);
  expect(second.queue.waiting.map(({ text }) => text)).toEqual([subject.text]);
  expect(await queuedBy(ANN)).toHaveLength(1);
  expect(Object.keys(localStorage).filter((name) => name.includes('entering'))).toEqual([]);
});

test('one that is refused stays to be looked at, and does not hold up the others; one that failed is sent again', async () => {
  let turn = 0;
  vi.spyOn(api, 'sendRound').mockImplementation(async (entries) => {
    turn += 1;
    return {
      results: entries.map((entry, i): RoundResult => {
        if (turn === 1 && i === 0) {
          return { key: entry.key, status: 'refused', problem: { title: 'No', errors: [] } };
        }
        if (turn === 1 && i === 1) return { key: entry.key, status: 'failed' };
        return kept([entry])[0]!;
      }),
    };
  });
  const { queue, session } = opened();
  // All three are entered before the first is sent.
  session.isRemembered = true;
  const asked = vi.spyOn(api, 'session').mockRejectedValue(unreachable);
  for (const number of ['N-1', 'N-2', 'N-3']) await queue.add({ ...subject, number }, record);
  await settled(queue);
  asked.mockResolvedValue(sessionOf(ANN));
  await queue.flush();
  await settled(queue);
  expect(queue.refused.map(({ number }) => number)).toEqual(['N-1']);
  expect(queue.waiting.map(({ number }) => number)).toEqual(['N-2']);
  await queue.flush();
  await settled(queue);
  expect(queue.waiting).toEqual([]);
  // It outlives the page, too.
  const later = opened();
  await later.queue.start();
  expect(later.queue.refused).toHaveLength(1);
  await later.queue.settleAsked(later.queue.refused[0]!);
  expect(await queuedBy(ANN)).toEqual([]);
});

test('one that the server fails on again and again is set aside, and goes out when it is sent again', async () => {
  const send = vi
    .spyOn(api, 'sendRound')
    .mockImplementation((entries) =>
      Promise.resolve({ results: entries.map(({ key }) => ({ key, status: 'failed' })) }),
    );
  const { queue } = opened();
  await queue.add(subject, record);
  for (let i = 0; i < 4; i++) {
    await settled(queue);
    expect(queue.waiting).toHaveLength(1);
    await queue.flush();
  }
  await settled(queue);
  expect(queue.waiting).toEqual([]);
  expect(queue.refused).toHaveLength(1);
  send.mockImplementation((entries) => Promise.resolve({ results: kept(entries) }));
  await queue.sendAgain(queue.refused[0]!);
  await settled(queue);
  expect(queue.entries).toEqual([]);
});

test('what another hand has logged too is asked about, what this device logged twice is not', async () => {
  const alike = [
    {
      id: 'other',
      record: { kind: 'weight', body: { massG: 200 } } as const,
      author: 'Bob',
      at: '2026-06-20T18:00:00Z',
    },
  ];
  const send = vi.spyOn(api, 'sendRound').mockImplementation(async (entries) => ({
    results: entries.map((entry) => ({ ...kept([entry])[0]!, alike }) as RoundResult),
  }));
  const { queue } = opened();
  const key = await queue.add(subject, record);
  await settled(queue);
  expect(queue.asked.map((one) => one.key)).toEqual([key]);
  send.mockImplementation(async (entries) => ({ results: kept(entries) }));
  await queue.takeMineBack(queue.asked[0]!);
  await settled(queue);
  expect(send.mock.lastCall![0]).toMatchObject([{ undo: key }]);
  expect(queue.entries).toEqual([]);
  const own = [{ ...alike[0]!, id: queue.sent.at(-2)?.recordId ?? `record-${key}` }];
  send.mockImplementation(async (entries) => ({
    results: entries.map((entry) => ({ ...kept([entry])[0]!, alike: own }) as RoundResult),
  }));
  await queue.add(subject, record);
  await settled(queue);
  expect(queue.asked).toEqual([]);
});

test('taken back before it ever left, it just goes; after a lost answer the server is told', async () => {
  const send = vi.spyOn(api, 'sendRound').mockRejectedValue(unreachable);
  const { queue, session } = opened();
  session.isRemembered = true;
  vi.spyOn(api, 'session').mockRejectedValue(unreachable);
  const unsent = await queue.add(subject, record);
  await settled(queue);
  await queue.takeBack(subject, unsent);
  expect(await queuedBy(ANN)).toEqual([]);
  session.isRemembered = false;
  const tried = await queue.add(subject, record);
  await settled(queue);
  expect(send).toHaveBeenCalled();
  await queue.takeBack(subject, tried);
  await settled(queue);
  expect((await queuedBy(ANN)).map(({ entry }) => entry)).toMatchObject([{ undo: tried }]);
});

test('an answer that was lost is not forgotten by a reload: what is taken back then is told to the server', async () => {
  const send = vi.spyOn(api, 'sendRound').mockRejectedValue(unreachable);
  const before = opened();
  const tried = await before.queue.add(subject, record);
  await settled(before.queue);
  const after = opened();
  await after.queue.start();
  await settled(after.queue);
  send.mockImplementation(async (entries) => ({ results: kept(entries) }));
  await after.queue.takeBack(subject, tried);
  await settled(after.queue);
  expect(send.mock.lastCall![0]).toMatchObject([{ undo: tried }]);
  expect(after.queue.entries).toEqual([]);
});
