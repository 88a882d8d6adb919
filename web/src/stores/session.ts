import {
  grantForRecord,
  type FirstStart,
  type Joining,
  type Permission,
  type RecordKind,
  type SessionView,
  type SignIn,
} from '@karyotome/contract';
import { useQueryCache } from '@pinia/colada';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import {
  ProblemError,
  setAccount,
  setCollection,
  setCsrfToken,
  whenSignedOut,
  whenStale,
} from '../api/client.ts';
import { askForPasskey } from '../api/authenticator.ts';
import { api } from '../api/resources.ts';
import { deviceZone, setDaysAhead, setFarmZone } from '../format/farm-day.ts';
import { setUnits } from '../format/reader.ts';
import { forgetAll, forgetRound } from '../offline/device.ts';
import { forgetDrafts, setDraftsOwner } from './useDraft.ts';

/** Counts up whenever what is remembered changes its shape. */
const STORAGE_KEY = 'karyotome.session.4';

/** Who was signed in here: name, role and settings, but not the token that writes carry. */
function remember(session: SessionView | null): void {
  if (session) localStorage.setItem(STORAGE_KEY, JSON.stringify({ ...session, csrfToken: '' }));
  else localStorage.removeItem(STORAGE_KEY);
}
function remembered(): SessionView | null {
  try {
    return JSON.parse(localStorage.getItem(STORAGE_KEY) ?? 'null') as SessionView | null;
  } catch {
    return null;
  }
}

/** Signed out here without a connection: the server is told before this device asks it for anything again. */
const ENDED = 'karyotome.session.ended';

/** Who is signed in, and the collection's settings. */
export const useSession = defineStore('session', () => {
  const view = ref<SessionView | null>(null);
  const asked = ref(false);
  /** What stands here was remembered, not answered: there was no connection. */
  const isRemembered = ref(false);
  const cache = useQueryCache();

  function take(session: SessionView | null): void {
    const before = view.value;
    const isOther =
      before?.account.id !== session?.account.id || before?.collection.id !== session?.collection.id;
    if (session && before && isOther) dropViews(before.account.id);
    view.value = session;
    isRemembered.value = false;
    remember(session);
    settle(session);
    if (session) setCsrfToken(session.csrfToken);
  }

  /** What depends on who is signed in and where the farm is: days, units, drafts, and whose writes this page sends. */
  function settle(session: SessionView | null): void {
    setFarmZone(session?.collection.farmZone ?? deviceZone());
    setDaysAhead(session?.daysAhead ?? 0);
    if (session) setUnits(session.collection);
    setDraftsOwner(session?.account.id ?? null);
    setAccount(session?.account.id ?? null);
    setCollection(session?.collection.id ?? null);
  }

  /** What one person saw must not greet the next. */
  function dropViews(accountId: string): void {
    void forgetRound(accountId);
    cache.getEntries().forEach((entry) => cache.remove(entry));
  }

  /** Asks the server once who we are; being nobody is an answer, not an error. */
  async function ensure(): Promise<boolean> {
    if (!asked.value) {
      try {
        await tellEnded();
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
    settle(view.value);
    isRemembered.value = view.value !== null;
    return view.value !== null;
  }

  /** Makes sure that the server knows us, before anything is sent that was entered without a connection. */
  async function confirm(): Promise<void> {
    await tellEnded();
    if (isRemembered.value) take(await api.session());
    asked.value = true;
  }

  /** Ends on the server what was ended here without a connection. */
  async function tellEnded(): Promise<void> {
    if (localStorage.getItem(ENDED) === null) return;
    try {
      setCsrfToken((await api.session()).csrfToken);
      await api.signOut();
    } catch (error) {
      // It has ended there already, by itself.
      if (!(error instanceof ProblemError) || error.problem.status !== 401) throw error;
    }
    localStorage.removeItem(ENDED);
  }

  /** Is signed in from here on, whatever was ended here before without a connection. */
  function enter(session: SessionView): void {
    take(session);
    localStorage.removeItem(ENDED);
    asked.value = true;
  }

  async function signIn(input: SignIn): Promise<void> {
    enter(await api.signIn(input));
  }

  /** With what an authenticator of this device answers. */
  async function signInWithPasskey(): Promise<void> {
    const { options } = await api.passkeySignInOptions();
    enter(await api.signInWithPasskey({ response: await askForPasskey(options) }));
  }

  /** Makes the first owner of this server, and is signed in as them. */
  async function start(input: FirstStart): Promise<void> {
    enter(await api.startFarm(input));
  }

  /** Takes an invitation, and is signed in with it. */
  async function join(input: Joining): Promise<void> {
    enter(await api.join(input));
  }

  /** Goes to another collection of this person. */
  async function choose(collectionId: string): Promise<void> {
    take(await api.chooseCollection(collectionId));
  }

  /**
   * Signs out, with or without a connection, and takes away what this device holds of the account: views, the round, drafts,
   * entries and photographs that were not sent. Whoever signs out is asked about those first.
   */
  async function signOut(): Promise<void> {
    const gone = view.value?.account.id;
    try {
      await api.signOut();
    } catch (error) {
      if (!(error instanceof ProblemError) || error.problem.status !== 0) throw error;
      localStorage.setItem(ENDED, 'yes');
    }
    if (gone !== undefined) {
      await forgetAll(gone);
      forgetDrafts(gone);
    }
    forget();
  }

  /** Nobody is signed in here any more. */
  function forget(): void {
    const gone = view.value?.account.id;
    take(null);
    asked.value = localStorage.getItem(ENDED) === null;
    if (gone !== undefined) dropViews(gone);
  }

  async function refresh(): Promise<void> {
    take(await api.session());
  }

  whenSignedOut(forget);
  whenStale(async () => {
    const before = view.value;
    await refresh();
    return (
      before !== null &&
      view.value?.account.id === before.account.id &&
      view.value.collection.id === before.collection.id
    );
  });
  const settings = computed(() => view.value?.collection ?? null);
  /** What this person may do, as the server says it. */
  const may = (permission: Permission): boolean => view.value?.permissions.includes(permission) ?? false;
  const mayEnter = (kind: RecordKind): boolean => may(grantForRecord(kind));
  const mayRecord = computed(() => may('record'));
  const mayBreed = computed(() => may('breed'));
  const mayHouse = computed(() => may('house'));
  const maySell = computed(() => may('sell'));
  const mayManage = computed(() => may('manage'));
  const mayDestroy = computed(() => may('destroy'));
  const name = computed(() => view.value?.account.name ?? '');
  return {
    view,
    settings,
    mayEnter,
    mayRecord,
    mayBreed,
    mayHouse,
    maySell,
    mayManage,
    mayDestroy,
    name,
    isRemembered,
    ensure,
    confirm,
    signIn,
    signInWithPasskey,
    start,
    join,
    choose,
    signOut,
    forget,
    refresh,
  };
});
