import type { RoundAnimal } from '@karyotome/contract';
import { recordWords } from '@karyotome/words';
import { api } from '../../api/resources.ts';
import { reader } from '../../format/reader.ts';
import type { QueuedEntry } from '../../offline/queued-entry.ts';
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
  const deleting = useWrite(api.deletePicture);

  function loggedOf(animal: RoundAnimal): Logged[] {
    const undone = new Set(
      [...queue.sent, ...queue.entries].flatMap(({ entry }) =>
        entry && 'undo' in entry ? [entry.undo] : [],
      ),
    );
    /** Logged of this animal, and not taken back: an act or a photograph, not the taking back of one. */
    const stands = ({ animalId, entry, key }: QueuedEntry): boolean =>
      animalId === animal.id && !undone.has(key) && !(entry && 'undo' in entry);
    const own = queue.sent.filter(stands);
    const gone = new Set(queue.sent.filter(({ key }) => undone.has(key)).map(({ recordId }) => recordId));
    const keyOf = new Map(own.map(({ recordId, key }) => [recordId, key]));
    const known = new Set(animal.done.map(({ id }) => id));
    return [
      ...animal.done
        .filter(({ id }) => !gone.has(id))
        .map(({ id, ...record }) => ({
          key: keyOf.get(id) ?? id,
          text: recordWords(record, reader()),
          isWaiting: false,
          recordId: id,
        })),
      ...own
        .filter(({ recordId }) => recordId === null || !known.has(recordId))
        .map(({ key, text }) => ({ key, text, isWaiting: false, recordId: null })),
      ...queue.entries
        .filter(stands)
        .filter(({ result }) => result?.status !== 'kept' || !known.has(result.id))
        .map(({ key, text, state }) => ({ key, text, isWaiting: state === 'waiting', recordId: null })),
    ];
  }

  /** Takes back what was logged: a photograph as a picture, else by its key where this device entered it, else by its record. */
  async function takeBack(animal: Pick<RoundAnimal, 'id' | 'number'>, logged: Logged): Promise<void> {
    const photo = queue.sent.find(({ key, photo: file }) => key === logged.key && file !== null);
    if (photo) {
      if (await deleting.run(photo.recordId!)) queue.forget(photo.key);
      else notices.warn(deleting.message.value ?? 'It could not be taken back');
      return;
    }
    if (logged.recordId !== null && logged.key === logged.recordId) {
      if (!(await voiding.run(logged.recordId)))
        notices.warn(voiding.message.value ?? 'It could not be taken back');
      return;
    }
    const subject = { animalId: animal.id, number: animal.number, text: `taken back: ${logged.text}` };
    if (!(await queue.takeBack(subject, logged.key)))
      notices.warn('This photograph is on its way: take it back once it is kept.');
  }
  return { loggedOf, takeBack };
}
