import type { NewRecord } from '@karyotome/contract';
import { api } from '../../api/resources.ts';
import { useNotices } from '../../stores/notices.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** A record at one touch: said below, and undone at once if it was a slip. */
export function useQuickRecord() {
  const notices = useNotices();
  const write = useWrite(api.addRecord);
  const undoing = useWrite((id: string) => api.voidRecord(id, 'Undone'));
  async function log(
    { id, number }: { readonly id: string; readonly number: string },
    record: NewRecord,
    text: string,
  ): Promise<void> {
    const sent = await write.run(id, record);
    if (!sent) return notices.warn(write.message.value ?? 'It could not be recorded');
    notices.say(`${number}: ${text}`, async () => {
      await undoing.run(sent.value.id);
    });
  }
  return { log, busy: write.busy };
}
