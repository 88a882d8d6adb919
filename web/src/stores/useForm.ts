import { validate, type FieldProblem } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { farmNowMs, farmToday } from '../format/farm-day.ts';
import { useDraft, useKeptAct } from './useDraft.ts';
import { useWrite } from './useWrite.ts';

interface FormOptions<Draft extends object, Input, Result> {
  /** One per form and subject: what was typed is kept under it. */
  readonly key: string;
  readonly initial: () => Draft;
  readonly schema: Parameters<typeof validate<Input>>[0];
  /** What would be sent; an empty field is left out, so that the schema can say it is missing. */
  readonly toInput: (draft: Draft) => unknown;
  readonly send: (input: Input, draft: Draft) => Promise<Result>;
}

/** A form: a draft that survives, checked here by the server's own schema and again by the server, sent once. */
export function useForm<Draft extends object, Input, Result>(options: FormOptions<Draft, Input, Result>) {
  const { draft, discard } = useDraft(options.key, options.initial);
  const local = ref<readonly FieldProblem[]>([]);
  const write = useWrite(options.send, useKeptAct(options.key));
  /** The fields the form has a place for; what is wrong with any other is said above the buttons. */
  const shown = new Set<string>();

  const check = () =>
    validate(options.schema, options.toInput(draft), { today: farmToday(), nowMs: farmNowMs() });

  /** The messages for fields, as form fields take them. */
  function errorsOf(...fields: string[]): string[] {
    fields.forEach((field) => shown.add(field));
    return [...local.value, ...write.problems.value]
      .filter((problem) => fields.includes(problem.field))
      .map((problem) => problem.message);
  }

  /** What no field shows; call it after the fields were drawn. */
  function general(): string | null {
    const unseen = local.value.filter((problem) => !shown.has(problem.field));
    if (unseen.length > 0) return unseen.map(({ field, message }) => `${field} ${message}`).join('. ');
    return write.general([...shown]);
  }

  /** @returns what the server answered, or null where the form needs a correction */
  async function submit(): Promise<{ value: Result } | null> {
    const result = check();
    local.value = result.ok ? [] : result.problems;
    if (!result.ok) return null;
    const sent = await write.run(result.value, draft);
    if (sent) discard();
    return sent;
  }

  /** What would be sent now; null while it would be refused. */
  const input = computed((): Input | null => {
    const result = check();
    return result.ok ? result.value : null;
  });

  return { draft, discard, submit, errorsOf, general, busy: write.busy, input };
}

/** Leaves out what was left empty. */
export function filled<T extends object>(values: T): Partial<T> {
  return Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)) as Partial<T>;
}
