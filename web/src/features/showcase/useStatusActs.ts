import type { NewStatusEvents } from '@karyotome/contract';
import { STATUS_EVENT_WORDS } from '@karyotome/words';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** What is said of an animal by one touch: no more than that it is so, today. */
export type PlainKind = Exclude<NewStatusEvents['kind'], 'reserved' | 'sold'>;

/** Decides upon animals by one touch, with the way back. */
export function useStatusActs() {
  const notices = useNotices();
  const adding = useWrite(api.addStatusEvents);
  const undoing = useWrite(async (ids: readonly string[]) => {
    for (const id of ids) await api.voidStatusEvent(id, 'Undone');
  });

  /** @returns whether it was done */
  async function decide(
    animalIds: readonly string[],
    kind: PlainKind,
    names: readonly string[],
  ): Promise<boolean> {
    const sent = await adding.run({ animalIds: [...animalIds], kind, on: farmToday() });
    if (!sent) {
      notices.warn(adding.message.value ?? 'It was not recorded');
      return false;
    }
    const { ids } = sent.value;
    const who = names.length > 3 ? `${names.length} animals` : names.join(', ');
    if (ids.length === 0) notices.say(`${who}: it is so already`);
    else notices.say(`${who}: ${STATUS_EVENT_WORDS[kind].toLowerCase()}`, () => undo(ids));
    return true;
  }
  async function undo(ids: readonly string[]): Promise<void> {
    if (!(await undoing.run(ids))) notices.warn(undoing.message.value ?? 'It could not be undone');
  }
  return { decide, busy: adding.busy };
}
