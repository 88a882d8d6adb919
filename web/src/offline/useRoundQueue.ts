import type { AlikeRecord, NewRecord, RoundResult } from '@karyotome/contract';
import { useEventListener, useTimeoutFn } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { ProblemError } from '../api/client.ts';
import { api } from '../api/resources.ts';
import { useSession } from '../stores/session.ts';
import { useStaleReads } from '../stores/useStaleReads.ts';
import { adoptEntries, changeQueued, dequeue, enqueue, markAttempted, queueOf } from './device.ts';
import { oneWindow } from './one-window.ts';
import { toQueued, type NewEntry, type QueuedEntry } from './queued-entry.ts';
import { firstPhoto } from './queued-photos.ts';
import { FAILED_OFTEN, MOST_FAILURES } from './set-aside.ts';
import { toPlain } from './to-plain.ts';

/** So many in one request: small enough that a dropped line costs little. */
const CHUNK = 50;
const RETRY_MS = 8_000;
const OTHER_ACCOUNT = 'urn:karyotome:problem:other-account';
const OTHER_COLLECTION = 'urn:karyotome:problem:other-collection';

/** What the entering screen knows of an animal. */
type Entered = Pick<QueuedEntry, 'animalId' | 'number' | 'text'>;

/**
 * Entries on their way: written to the device first, then sent in their order, each with its key, again and again until the
 * server has answered for it. One that is refused, or that somebody else has logged too, stays to be looked at.
 */
export const useRoundQueue = defineStore('round-queue', () => {
  const session = useSession();
  const stale = useStaleReads();
  const entries = ref<QueuedEntry[]>([]);
  const isSending = ref(false);
  const isOffline = ref(false);
  /** Sent since the page was opened, newest last: shown until the server's own list has them. */
  const sent = ref<(QueuedEntry & { recordId: string | null })[]>([]);
  const retry = useTimeoutFn(() => void flush(), RETRY_MS, { immediate: false });
  useEventListener('online', () => void flush());
  let owner: string | null = null;
  /** The collection whose entries these are. */
  let place: string | undefined;
  const isHere = (): boolean => session.view?.account.id === owner && session.settings?.id === place;

  const waiting = computed(() => entries.value.filter(({ state }) => state === 'waiting'));
  const refused = computed(() => entries.value.filter(({ state }) => state === 'refused'));
  /** Kept, but the same was logged by another hand too. */
  const asked = computed(() => entries.value.filter(({ state }) => state === 'asked'));

  /** Reads what lies on the device for whoever is signed in, and begins to send it. */
  async function start(): Promise<void> {
    const account = session.view?.account ?? null;
    if (account === null) return;
    const collectionId = session.settings?.id;
    if (owner !== account.id || place !== collectionId) {
      owner = account.id;
      place = collectionId;
      entries.value = [];
      sent.value = [];
      await adoptEntries(account.email, account.id);
      const written = await queueOf(account.id, collectionId);
      const keys = new Set(written.map(({ key }) => key));
      // What was entered while the device was read stays.
      entries.value = [...written, ...entries.value.filter(({ key }) => !keys.has(key))];
    }
    void flush();
  }

  /** Nobody is signed in any more: what was another's is neither shown nor sent. */
  function stop(): void {
    owner = null;
    entries.value = [];
    sent.value = [];
    retry.stop();
  }

  async function put(entry: NewEntry): Promise<QueuedEntry> {
    if (owner === null) await start();
    if (owner === null) throw new Error('Nobody is signed in.');
    const whole = toQueued(entry, owner, place);
    const seq = await enqueue(whole);
    const kept = { ...whole, seq };
    if (!entries.value.some(({ key }) => key === kept.key)) entries.value.push(kept);
    void flush();
    return kept;
  }

  /** Enters a record. @returns its key, by which it is taken back */
  async function add(subject: Entered, record: NewRecord): Promise<string> {
    const key = crypto.randomUUID();
    await put({ ...subject, key, entry: { key, animalId: subject.animalId, record }, photo: null });
    return key;
  }

  async function addPhoto(subject: Entered, file: Blob): Promise<string> {
    const key = crypto.randomUUID();
    await put({ ...subject, key, entry: null, photo: file });
    return key;
  }

  /**
   * Takes an entry back: one that was not sent yet just goes. Not a photograph that is on its way: whether it arrives, only
   * the answer tells; once it is there it is deleted as any picture is.
   *
   * @returns whether it could be
   */
  async function takeBack(subject: Entered, key: string): Promise<boolean> {
    const found = entries.value.find((entry) => entry.key === key);
    if (found?.photo && found.attempted) return false;
    if (found && !isSending.value) {
      await drop([found]);
      // It may have been sent before a line dropped: the server is told too, unless nothing ever left.
      if (found.result === undefined && !found.attempted) return true;
    }
    await tellTakenBack(subject, key);
    return true;
  }

  /** What was sent and is gone again is shown no more. */
  function forget(key: string): void {
    sent.value = sent.value.filter((entry) => entry.key !== key);
  }

  async function tellTakenBack(subject: Entered, key: string): Promise<void> {
    const undo = crypto.randomUUID();
    await put({ ...subject, key: undo, entry: { key: undo, undo: key }, photo: null });
  }

  async function drop(gone: readonly QueuedEntry[]): Promise<void> {
    const seqs = new Set(gone.map(({ seq }) => seq!));
    await dequeue([...seqs]);
    entries.value = entries.value.filter(({ seq }) => !seqs.has(seq!));
  }

  /** Sends what waits, one run at a time, also over several windows. */
  async function flush(): Promise<void> {
    retry.stop();
    if (isSending.value || waiting.value.length === 0) return;
    isSending.value = true;
    try {
      await oneWindow(async () => {
        while (waiting.value.length > 0 && (await sendChunk()));
      });
    } finally {
      isSending.value = false;
      if (waiting.value.length > 0) retry.start();
    }
  }

  /** @returns whether to go on */
  async function sendChunk(): Promise<boolean> {
    const chunk = waiting.value.slice(0, CHUNK);
    const photo = chunk[0]!.photo;
    try {
      await session.confirm();
      // Somebody else may have signed in, here or in another window: what is not theirs stays.
      if (owner === null || !isHere()) return false;
      if (photo) {
        await attempt(chunk.slice(0, 1));
        const file = new File([photo], 'photo', { type: photo.type });
        const { id } = await api.addPicture(chunk[0]!.animalId, file, '', chunk[0]!.key);
        await drop([chunk[0]!]);
        sent.value.push({ ...chunk[0]!, recordId: id });
        return true;
      }
      const batch = chunk.slice(0, firstPhoto(chunk));
      await attempt(batch);
      const { results } = await api.sendRound(
        batch.map(({ entry }) => toPlain(entry!)),
        owner,
      );
      const goesOn = await settle(batch, results);
      isOffline.value = false;
      await stale.readOwnAnew();
      return goesOn;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      isOffline.value = error.problem.status === 0;
      if (error.problem.type === OTHER_ACCOUNT || error.problem.type === OTHER_COLLECTION) {
        await session.refresh();
        return false;
      }
      // A photograph that is refused must not hold up the rest.
      if (
        photo &&
        error.problem.status >= 400 &&
        error.problem.status < 500 &&
        error.problem.status !== 401
      ) {
        await mark(chunk[0]!, 'refused', {
          key: chunk[0]!.key,
          status: 'refused',
          problem: { title: error.problem.title, detail: error.message, errors: [] },
        });
        return true;
      }
      return false;
    }
  }

  async function attempt(batch: readonly QueuedEntry[]): Promise<void> {
    const first = batch.filter(({ attempted }) => !attempted);
    if (first.length === 0) return;
    await markAttempted(first.map((entry) => toPlain(entry)));
    for (const entry of first) entry.attempted = true;
  }

  /** @param results - in the order of the batch */
  async function settle(batch: readonly QueuedEntry[], results: readonly RoundResult[]): Promise<boolean> {
    const gone: QueuedEntry[] = [];
    let failed = 0;
    for (const [i, result] of results.entries()) {
      const entry = entries.value.find(({ key }) => key === batch[i]?.key);
      if (!entry) continue;
      if (result.status === 'failed') {
        const times = (failures.get(result.key) ?? 0) + 1;
        failures.set(result.key, times);
        if (times < MOST_FAILURES) failed += 1;
        else await mark(entry, 'refused', { key: result.key, status: 'refused', problem: FAILED_OFTEN });
      } else if (result.status === 'refused') await mark(entry, 'refused', result);
      else if (result.status === 'kept' && result.alike.length > 0 && !areOwn(result.alike)) {
        await mark(entry, 'asked', result);
        ownIds.add(result.id);
      } else {
        if (result.status === 'kept') ownIds.add(result.id);
        gone.push(entry);
        sent.value.push({ ...entry, recordId: result.status === 'kept' ? result.id : null });
      }
    }
    await drop(gone);
    return failed === 0;
  }

  /** How often the server has failed on an entry, by its own fault. */
  const failures = new Map<string, number>();
  /** Sends one again that was set aside: what it was refused for may be mended by now. */
  async function sendAgain(entry: QueuedEntry): Promise<void> {
    failures.delete(entry.key);
    entry.state = 'waiting';
    delete entry.result;
    await changeQueued({ ...toPlain(entry) });
    await flush();
  }

  /** Records this device made itself: logging twice on purpose is no clash of two hands. */
  const ownIds = new Set<string>();
  const areOwn = (alike: readonly AlikeRecord[]): boolean => alike.every(({ id }) => ownIds.has(id));

  async function mark(entry: QueuedEntry, state: QueuedEntry['state'], result: RoundResult): Promise<void> {
    entry.state = state;
    entry.result = result;
    await changeQueued({ ...toPlain(entry) });
  }

  /** Both stay, or it was understood: nothing more to ask. */
  const settleAsked = (entry: QueuedEntry): Promise<void> => drop([entry]);
  /** Mine was the one too many. */
  async function takeMineBack(entry: QueuedEntry): Promise<void> {
    const { key, animalId, number, text } = entry;
    await drop([entry]);
    await tellTakenBack({ animalId, number, text: `taken back: ${text}` }, key);
  }

  // Signing in as somebody else, or going to another collection, here or in another window, changes whose entries these are.
  watch(
    () => [session.view?.account.id, session.settings?.id],
    ([id]) => {
      if (id === undefined) stop();
      else if (owner !== null && !isHere()) void start();
    },
  );

  return {
    entries,
    waiting,
    refused,
    asked,
    sent,
    isSending,
    isOffline,
    start,
    stop,
    add,
    addPhoto,
    takeBack,
    forget,
    flush,
    settleAsked,
    takeMineBack,
    sendAgain,
  };
});
