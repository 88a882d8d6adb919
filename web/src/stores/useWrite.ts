import type { FieldProblem } from '@karyotome/contract';
import { computed, ref } from 'vue';
import { asAct, ProblemError, type Act } from '../api/client.ts';
import { useStaleReads } from './useStaleReads.ts';

/**
 * Runs a write, keeps its problems by field, and lets what is made of what it changed read itself anew: one record can change
 * claims, advice and lists far from where it was made.
 */
export function useWrite<Args extends unknown[], Result>(
  send: (...args: Args) => Promise<Result>,
  /** Where the act's key is kept until it was answered: with a form's draft, over a reload too. */
  act: Act = { key: null },
) {
  const busy = ref(false);
  const problems = ref<readonly FieldProblem[]>([]);
  const message = ref<string | null>(null);
  /** Of the refusal: an HTTP status, 0 without a connection; null where nothing was refused. */
  const status = ref<number | null>(null);
  /** Of the refusal, as docs/errors.md lists it; null where nothing was refused. */
  const code = ref<string | null>(null);
  const stale = useStaleReads();

  function reset(): void {
    problems.value = [];
    message.value = null;
    status.value = null;
    code.value = null;
  }

  /** @returns the result, or null where the server refused; then `message` and `problems` say why */
  async function run(...args: Args): Promise<{ value: Result } | null> {
    if (busy.value) return null;
    busy.value = true;
    reset();
    try {
      const value = await asAct(act, () => send(...args));
      await stale.readOwnAnew();
      return { value };
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      problems.value = error.errors;
      message.value = error.message;
      status.value = error.problem.status;
      code.value = error.code;
      return null;
    } finally {
      busy.value = false;
    }
  }

  /** The messages for one field, as form fields take them. */
  const errorsOf = (field: string): string[] =>
    problems.value.filter((problem) => problem.field === field).map((problem) => problem.message);
  /** What no field of the form would show. */
  const general = (shown: readonly string[]): string | null => {
    if (message.value === null) return null;
    const unseen = problems.value.filter((problem) => !shown.includes(problem.field));
    if (problems.value.length > 0 && unseen.length === 0) return null;
    return unseen.length > 0 ? unseen.map((p) => `${p.field} ${p.message}`).join('. ') : message.value;
  };
  const failed = computed(() => message.value !== null);
  return { run, busy, problems, message, status, code, failed, errorsOf, general, reset };
}
