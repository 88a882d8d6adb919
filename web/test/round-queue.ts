import 'fake-indexeddb/auto';
import type { NewRecord, RoundEntry, RoundResult, SessionView } from '@karyotome/contract';
import { PiniaColada } from '@pinia/colada';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, expect, vi } from 'vitest';
import { createApp } from 'vue';
import { ProblemError } from '../src/api/client.ts';
import { dequeue, queueOf } from '../src/offline/device.ts';
import { useRoundQueue } from '../src/offline/useRoundQueue.ts';
import { useSession } from '../src/stores/session.ts';

/* Two keepers who share a device, and what they enter on it. */

export const ANN = 'ann@example.test';
export const BOB = 'bob@example.test';
export const idOf = (email: string): string => `id of ${email}`;
export const queuedBy = (email: string): ReturnType<typeof queueOf> => queueOf(idOf(email));
export const record: NewRecord = { kind: 'care', on: '2026-06-20', body: { act: 'cleaned' } };
export const subject = {
  animalId: '11111111-1111-4111-8111-111111111111',
  number: 'N-1',
  text: 'tub cleaned',
};
export const sessionOf = (email: string): SessionView =>
  ({
    account: { id: idOf(email), name: 'Ann', email },
    role: 'owner',
    permissions: ['view', 'record', 'manage', 'destroy'],
    csrfToken: 't',
    collection: { massUnit: 'g', temperatureUnit: 'C' },
  }) as unknown as SessionView;
export const kept = (entries: RoundEntry[]): RoundResult[] =>
  entries.map((entry) =>
    'undo' in entry
      ? { key: entry.key, status: 'taken-back' }
      : { key: entry.key, status: 'kept', id: `record-${entry.key}`, alike: [] },
  );
export const unreachable = new ProblemError({ type: 'x', title: 'No', status: 0 });

/** The queue as a page of this account has it. */
export function opened(email = ANN) {
  const app = createApp({}).use(createPinia()).use(PiniaColada);
  setActivePinia(app.config.globalProperties.$pinia);
  return app.runWithContext(() => {
    const session = useSession();
    session.view = sessionOf(email);
    return { queue: useRoundQueue(), session };
  });
}
export const settled = async (queue: ReturnType<typeof useRoundQueue>): Promise<void> => {
  await vi.waitFor(() => expect(queue.isSending).toBe(false));
};

/** Each test begins with an empty device. */
export function withEmptyDevice(): void {
  beforeEach(() => {
    localStorage.clear();
    vi.stubGlobal('navigator', { ...navigator, locks: undefined });
  });
  afterEach(async () => {
    vi.restoreAllMocks();
    for (const who of [ANN, BOB]) {
      await dequeue((await queuedBy(who)).map(({ seq }) => seq!));
    }
  });
}
