import type { ReadingsImport } from '@karyotome/contract';
import { ref } from 'vue';
import type { LongWork } from '../../api/call.ts';
import { momentDay } from '../../format/format.ts';
import { useNotices } from '../../stores/notices.ts';
import { useLongWork } from '../../stores/useLongWork.ts';
import { useWrite } from '../../stores/useWrite.ts';

/** A logger's file on its way in: of which place it is, in which zone its clock is, how far it is, and what is wrong in it. */
export function useLoggerFile(
  send: (id: string, file: Blob, timeZone: string, work: LongWork) => Promise<ReadingsImport>,
) {
  const notices = useNotices();
  const work = useLongWork();
  const importing = useWrite((id: string, file: File, zone: string) =>
    work.run((job) => send(id, file, zone, job)),
  );
  /** The file that waits for its logger's zone. */
  const asked = ref<{ id: string; file: File } | null>(null);
  const refused = ref<{ name: string; lines: string[] } | null>(null);

  function take(id: string, file: File): void {
    refused.value = null;
    asked.value = { id, file };
  }

  async function read(timeZone: string): Promise<void> {
    const { id, file } = asked.value!;
    asked.value = null;
    const sent = await importing.run(id, file, timeZone);
    if (sent) {
      const { taken, known, from, to } = sent.value;
      notices.say(`${taken} readings taken, ${known} were known: ${momentDay(from)} to ${momentDay(to)}`);
      return;
    }
    const lines = importing.problems.value.map(({ field, message }) => `${field} ${message}`);
    refused.value = { name: file.name, lines: lines.length > 0 ? lines : [importing.message.value ?? ''] };
  }

  return { asked, refused, take, read, work, busy: importing.busy };
}

export type LoggerFile = ReturnType<typeof useLoggerFile>;
