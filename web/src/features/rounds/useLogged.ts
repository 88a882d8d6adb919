import type { RoundAnimal } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useRoundQueue } from '../../offline/useRoundQueue.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** Something that was logged of an animal today, here or elsewhere. */
export interface Logged {
  readonly key: string;
  readonly text: string;
  readonly isWaiting: boolean;
  /** The record, where only the server's list knows it. */
  readonly recordId: string | null;
}

/** What was logged today: the server's list, what this device has sent since it was read, and what still waits. */
export function useLogged() {
  const queue = useRoundQueue();
  const notices = useNotices();
  const voiding = useWrite((id: string) => api.voidRecord(id, 'Undone'));

  function loggedOf(animal: RoundAnimal): Logged[] {
    const undone = new Set(
      [...queue.sent, ...queue.entries].flatMap(({ entry, key }) =>
        'undo' in entry && entry.undo !== key ? [entry.undo] : [],
      ),
    );
    const own = queue.sent.filter(
      ({ animalId, entry, key, photo }) =>
        animalId === animal.id && !undone.has(key) && ('record' in entry || photo !== undefined),
    );
    const gone = new Set(queue.sent.filter(({ key }) => undone.has(key)).map(({ recordId }) => recordId));
    const keyOf = new Map(own.map(({ recordId, key }) => [recordId, key]));
    const known = new Set(animal.done.map(({ id }) => id));
    return [
      ...animal.done
        .filter(({ id }) => !gone.has(id))
        .map(({ id, text }) => ({ key: keyOf.get(id) ?? id, text, isWaiting: false, recordId: id })),
      ...own
        .filter(({ recordId }) => recordId === null || !known.has(recordId))
        .map(({ key, text }) => ({ key, text, isWaiting: false, recordId: null })),
      ...queue.entries
        .filter(
          ({ animalId, entry, key, photo }) =>
            animalId === animal.id && !undone.has(key) && ('record' in entry || photo !== undefined),
        )
        .filter(({ result }) => result?.status !== 'kept' || !known.has(result.id))
        .map(({ key, text, state }) => ({ key, text, isWaiting: state === 'waiting', recordId: null })),
    ];
  }

  /** Takes back what was logged: by its key where this device entered it, else by its record. */
  async function takeBack(animal: RoundAnimal, logged: Logged): Promise<void> {
    if (logged.recordId !== null && logged.key === logged.recordId) {
      if (!(await voiding.run(logged.recordId)))
        notices.warn(voiding.message.value ?? 'It could not be taken back');
      return;
    }
    await queue.takeBack(
      { animalId: animal.id, number: animal.number, text: `taken back: ${logged.text}` },
      logged.key,
    );
  }
  return { loggedOf, takeBack };
}
