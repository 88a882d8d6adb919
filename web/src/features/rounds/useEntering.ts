import type { RoundAnimal } from '@karyotome/contract';
import { useVibrate } from '@vueuse/core';
import { useRoundQueue } from '../../offline/useRoundQueue.ts';
import { useNotices } from '../../stores/notices.ts';
import type { Entry } from './round-acts.ts';
import { useLogged, type Logged } from './useLogged.ts';

type Subject = Pick<RoundAnimal, 'id' | 'number'>;
const ENTERED_MS = 40;

/** Enters what was done at a tub: kept on the device first, sent by itself. */
export function useEntering() {
  const queue = useRoundQueue();
  const notices = useNotices();
  const { takeBack } = useLogged();
  /** Felt in the hand while the eyes are on the animal. */
  const { vibrate } = useVibrate({ pattern: ENTERED_MS });

  /** An entry counts once the device has written it; one that it could not write is said at once. */
  async function keep(
    animal: Subject,
    text: string,
    write: (subject: { animalId: string; number: string; text: string }) => Promise<string>,
  ): Promise<Logged | null> {
    try {
      const key = await write({ animalId: animal.id, number: animal.number, text });
      vibrate();
      return { key, text, isWaiting: true, recordId: null };
    } catch {
      notices.warn(`${animal.number}: ${text} could not be kept on this device. Is its storage full?`);
      return null;
    }
  }
  const enter = (animal: Subject, { record, text }: Entry): Promise<Logged | null> =>
    keep(animal, text, (subject) => queue.add(subject, record));

  /** Enters several, which one touch takes back. */
  async function enterAll(
    entries: readonly { readonly animal: Subject; readonly entry: Entry }[],
    said: string,
  ): Promise<void> {
    const tried = await Promise.all(
      entries.map(async ({ animal, entry }) => ({ animal, logged: await enter(animal, entry) })),
    );
    const kept = tried.flatMap(({ animal, logged }) => (logged ? [{ animal, logged }] : []));
    if (kept.length === 0) return;
    notices.say(said, async () => {
      for (const { animal, logged } of kept) await takeBack(animal, logged);
    });
  }
  return {
    /** @returns null where the device could not keep it, which was said */
    enter,
    enterAll,
    enterPhoto: (animal: Subject, file: File) =>
      keep(animal, 'a photograph', (subject) => queue.addPhoto(subject, file)),
  };
}
