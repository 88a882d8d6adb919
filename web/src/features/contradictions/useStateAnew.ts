import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/farm-day.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** States an animal's genes anew, as certain, with a way back. */
export function useStateAnew() {
  const session = useSession();
  const notices = useNotices();
  const state = useWrite(api.addRecord);
  const undoing = useWrite((recordId: string) => api.voidRecord(recordId, 'Undone'));

  async function stateAnew(animal: { readonly id: string; readonly number: string }, genes: string) {
    const done = await state.run(animal.id, {
      kind: 'identification',
      on: farmToday(),
      body: { genes, sure: 'certain', by: session.name },
    });
    if (!done) {
      notices.warn(state.message.value ?? 'It could not be recorded');
      return;
    }
    const undo = async (): Promise<void> => void (await undoing.run(done.value.id));
    notices.say(`${animal.number} stated anew: ${genes}`, undo);
  }

  return { stateAnew, busy: state.busy };
}
