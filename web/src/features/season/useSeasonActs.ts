import type { BoardFemale, BoardMale } from '@karyotome/contract';
import type { SeasonEventKind } from '@karyotome/core';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { EVENT_WORDS } from './season-words.ts';

/** The one-touch acts of the season board: done today, said below, undone at once if it was a slip. */
export function useSeasonActs() {
  const notices = useNotices();
  const introducing = useWrite(api.introduce);
  const noting = useWrite(api.addSeasonEvent);
  const voiding = useWrite((id: string) => api.voidSeasonEvent(id, 'Undone'));
  const undo = (id: string) => async (): Promise<void> => {
    if (!(await voiding.run(id))) notices.warn(voiding.message.value ?? 'It could not be taken back');
  };

  async function introduce(female: BoardFemale, male: BoardMale): Promise<void> {
    const sent = await introducing.run({ damId: female.id, sireId: male.id, on: farmToday() });
    if (!sent) return notices.warn(introducing.message.value ?? 'It could not be recorded');
    notices.say(`${male.number} put to ${female.number}`, undo(sent.value.eventId));
  }

  async function note(female: BoardFemale, kind: SeasonEventKind, sireId?: string): Promise<void> {
    const sent = await noting.run(female.pairing!.id, {
      kind,
      on: farmToday(),
      ...(sireId ? { sireId } : {}),
    });
    if (!sent) return notices.warn(noting.message.value ?? 'It could not be recorded');
    notices.say(`${female.number}: ${EVENT_WORDS[kind].toLowerCase()} today`, undo(sent.value.id));
  }

  return { introduce, note };
}
