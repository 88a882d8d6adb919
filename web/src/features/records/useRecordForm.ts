import {
  correction,
  newRecord,
  type Correction,
  type NewRecord,
  type RecordKind,
  type RecordView,
  type RecordWarning,
} from '@karyotome/contract';
import { KIND_WORDS, sentences, warningWords } from '@karyotome/words';
import { api } from '../../api/resources.ts';
import { reader } from '../../format/reader.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useForm } from '../../stores/useForm.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { emptyRecord, readyToSend, type Prey } from './record-defaults.ts';

export interface RecordSubject {
  readonly animalId: string;
  readonly number: string;
  readonly kind: RecordKind;
  /** Given: the record to correct. */
  readonly correcting?: RecordView | undefined;
  readonly prey?: Prey | null;
  /** Values to begin with, such as an advised tub. */
  readonly begin?: Partial<Record<string, unknown>>;
}

/** One record's form: a new record, or the correction of one. */
export function useRecordForm(subject: RecordSubject) {
  const session = useSession();
  const notices = useNotices();
  const { correcting, kind, animalId } = subject;
  const initial = (): { record: NewRecord; reason: string } => {
    const empty = emptyRecord(kind, session.name, subject.prey);
    const record = correcting
      ? {
          kind,
          on: correcting.on,
          body: { ...empty.body, ...pick(correcting.body, empty.body) },
          note: correcting.note,
        }
      : { ...empty, body: { ...empty.body, ...subject.begin } };
    return { record: record as NewRecord, reason: '' };
  };
  const form = useForm({
    key: `record.${animalId}.${kind}.${correcting?.id ?? 'new'}`,
    initial,
    schema: (correcting ? correction : newRecord) as typeof newRecord,
    toInput: ({ record, reason }) => ({ ...readyToSend(record), ...(correcting ? { reason } : {}) }),
    send: async (record): Promise<{ id: string; warnings: RecordWarning[] }> => {
      if (!correcting) return api.addRecord(animalId, record);
      return { ...(await api.correctRecord(correcting.id, record as Correction)), warnings: [] };
    },
  });
  const undoing = useWrite((id: string) => api.voidRecord(id, 'Undone'));

  async function undo(id: string): Promise<void> {
    if (!(await undoing.run(id))) notices.warn(undoing.message.value ?? 'It could not be undone');
  }

  /** @returns whether it was recorded */
  async function submit(): Promise<boolean> {
    const sent = await form.submit();
    if (!sent) return false;
    const { id, warnings } = sent.value;
    if (warnings.length > 0)
      notices.warn(
        sentences(['Recorded, but flagged', ...warnings.map((one) => warningWords(one, reader()))]),
      );
    else
      notices.say(
        `${KIND_WORDS[kind]} recorded for ${subject.number}`,
        correcting ? undefined : () => undo(id),
      );
    return true;
  }
  return { ...form, submit };
}

/** Those values of a stored body that the form knows. */
function pick(body: object, known: object): object {
  return Object.fromEntries(Object.entries(body).filter(([key]) => key in known));
}
