import type { SessionView, SignIn } from '@karyotome/contract';
import { useQueryCache } from '@pinia/colada';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { ProblemError, useCsrfToken, whenSignedOut } from '../api/client.ts';
import { api } from '../api/resources.ts';

/** Who is signed in, and the collection's settings. */
export const useSession = defineStore('session', () => {
  const view = ref<SessionView | null>(null);
  const asked = ref(false);
  const cache = useQueryCache();

  function take(session: SessionView | null): void {
    view.value = session;
    if (session) useCsrfToken(session.csrfToken);
  }

  /** Asks the server once who we are; being nobody is an answer, not an error. */
  async function ensure(): Promise<boolean> {
    if (!asked.value) {
      try {
        take(await api.session());
      } catch (error) {
        if (!(error instanceof ProblemError) || error.problem.status !== 401) throw error;
      }
      asked.value = true;
    }
    return view.value !== null;
  }

  async function signIn(input: SignIn): Promise<void> {
    take(await api.signIn(input));
    asked.value = true;
  }

  async function signOut(): Promise<void> {
    await api.signOut();
    forget();
  }

  function forget(): void {
    take(null);
    // What one person saw must not greet the next.
    cache.getEntries().forEach((entry) => cache.remove(entry));
  }

  async function refresh(): Promise<void> {
    take(await api.session());
  }

  whenSignedOut(forget);
  const settings = computed(() => view.value?.collection ?? null);
  const mayRecord = computed(() => view.value !== null && view.value.role !== 'viewer');
  const name = computed(() => view.value?.account.name ?? '');
  return { view, settings, mayRecord, name, ensure, signIn, signOut, forget, refresh };
});
