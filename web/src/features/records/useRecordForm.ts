import {
  newRecord,
  validate,
  type FieldProblem,
  type NewRecord,
  type RecordKind,
  type RecordView,
} from '@karyotome/contract';
import { computed, ref } from 'vue';
import { api } from '../../api/resources.ts';
import { useDraft } from '../../stores/useDraft.ts';
import { useNotices } from '../../stores/notices.ts';
import { useSession } from '../../stores/session.ts';
import { useWrite } from '../../stores/useWrite.ts';
import { emptyRecord, KIND_WORDS, readyToSend } from './record-defaults.ts';

export interface RecordSubject {
  readonly animalId: string;
  readonly number: string;
  readonly kind: RecordKind;
  /** Given: the record to correct. */
  readonly correcting?: RecordView | undefined;
  readonly prey?: { species: 'rat' | 'mouse'; size: string; preyG: number } | null;
  /** Values to begin with, such as an advised tub. */
  readonly begin?: Partial<Record<string, unknown>>;
}

/** One record's form: a draft that survives, checked here and again by the server, sent once. */
export function useRecordForm(subject: RecordSubject) {
  const session = useSession();
  const notices = useNotices();
  const initial = (): { record: NewRecord; reason: string } => {
    const { correcting, kind } = subject;
    const empty = emptyRecord(kind, session.name, subject.prey);
    const record = correcting
      ? ({
          kind,
          on: correcting.on,
          body: { ...empty.body, ...pick(correcting.body, empty.body) },
          note: correcting.note,
        } as NewRecord)
      : ({ ...empty, body: { ...empty.body, ...subject.begin } } as NewRecord);
    return { record, reason: '' };
  };
  const { draft, discard } = useDraft(
    `record.${subject.animalId}.${subject.kind}.${subject.correcting?.id ?? 'new'}`,
    initial,
  );
  const local = ref<readonly FieldProblem[]>([]);
  const write = useWrite((record: NewRecord, reason: string) =>
    subject.correcting
      ? api.correctRecord(subject.correcting.id, { ...record, reason })
      : api.addRecord(subject.animalId, record),
  );

  async function submit(): Promise<boolean> {
    const record = readyToSend(draft.record);
    const result = validate(newRecord, record);
    local.value = result.ok ? [] : result.problems;
    if (!result.ok) return false;
    const sent = await write.run(result.value, draft.reason.trim());
    if (!sent) return false;
    discard();
    const { id } = sent.value;
    const warnings = 'warnings' in sent.value ? (sent.value.warnings as string[]) : [];
    if (warnings.length > 0) notices.warn(`Recorded, but flagged. ${warnings.join('. ')}`);
    else
      notices.say(
        `${KIND_WORDS[subject.kind]} recorded for ${subject.number}`,
        subject.correcting ? undefined : () => undo(id),
      );
    return true;
  }

  const undoing = useWrite((id: string) => api.voidRecord(id, 'Undone'));
  async function undo(id: string): Promise<void> {
    if (!(await undoing.run(id))) notices.warn(undoing.message.value ?? 'It could not be undone');
  }

  const errorsOf = (field: string): string[] => [
    ...local.value.filter((problem) => problem.field === field).map((problem) => problem.message),
    ...write.errorsOf(field),
  ];
  const general = computed(() =>
    write.general(['on', 'reason', ...Object.keys(draft.record.body).map((key) => `body.${key}`)]),
  );
  return { draft, submit, discard, busy: write.busy, errorsOf, general };
}

/** Those values of a stored body that the form knows. */
function pick(body: object, known: object): object {
  return Object.fromEntries(Object.entries(body).filter(([key]) => key in known));
}
