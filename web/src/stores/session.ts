import type { SessionView, SignIn } from '@karyotome/contract';
import { useQueryCache } from '@pinia/colada';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { ProblemError, useCsrfToken, whenSignedOut } from '../api/client.ts';
import { api } from '../api/resources.ts';
import { forgetRound } from '../offline/device.ts';

const KEPT = 'karyotome.session';

/** Who was signed in here: name, role and settings, but not the token that writes carry. */
function remember(session: SessionView | null): void {
  if (session) localStorage.setItem(KEPT, JSON.stringify({ ...session, csrfToken: '' }));
  else localStorage.removeItem(KEPT);
}
function remembered(): SessionView | null {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? 'null') as SessionView | null;
  } catch {
    return null;
  }
}

/** Who is signed in, and the collection's settings. */
export const useSession = defineStore('session', () => {
  const view = ref<SessionView | null>(null);
  const asked = ref(false);
  /** What stands here was remembered, not answered: there was no connection. */
  const isRemembered = ref(false);
  const cache = useQueryCache();

  function take(session: SessionView | null): void {
    view.value = session;
    isRemembered.value = false;
    remember(session);
    if (session) useCsrfToken(session.csrfToken);
  }

  /** Asks the server once who we are; being nobody is an answer, not an error. */
  async function ensure(): Promise<boolean> {
    if (!asked.value) {
      try {
        take(await api.session());
      } catch (error) {
        if (!(error instanceof ProblemError)) throw error;
        if (error.problem.status === 0) return recall();
        if (error.problem.status !== 401) throw error;
        remember(null);
      }
      asked.value = true;
    }
    return view.value !== null;
  }

  /** Without a connection, whoever was signed in here last goes on. @returns whether anybody was */
  function recall(): boolean {
    view.value ??= remembered();
    isRemembered.value = view.value !== null;
    return view.value !== null;
  }

  /** Makes sure that the server knows us, before anything is sent that was entered without a connection. */
  async function confirm(): Promise<void> {
    if (isRemembered.value) take(await api.session());
    asked.value = true;
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
    const gone = view.value?.account.email;
    take(null);
    // What one person saw must not greet the next.
    if (gone !== undefined) void forgetRound(gone);
    cache.getEntries().forEach((entry) => cache.remove(entry));
  }

  async function refresh(): Promise<void> {
    take(await api.session());
  }

  whenSignedOut(forget);
  const settings = computed(() => view.value?.collection ?? null);
  const mayRecord = computed(() => view.value !== null && view.value.role !== 'viewer');
  const name = computed(() => view.value?.account.name ?? '');
  return { view, settings, mayRecord, name, isRemembered, ensure, confirm, signIn, signOut, forget, refresh };
});
