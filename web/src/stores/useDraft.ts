import { reactive, watch } from 'vue';
import type { Act } from '../api/client.ts';

const PREFIX = 'karyotome.draft.';
const KEY_PREFIX = 'karyotome.act.';

/** Whose drafts these are: another person on the device neither sees nor sends them. */
let account = '';

/** From now on drafts are this account's. */
export function setDraftsOwner(accountId: string | null): void {
  account = accountId === null ? '' : `${accountId}.`;
}

const ID = /^[0-9a-f-]{36}\./;

/** Takes away what an account typed and did not send, and what was kept before drafts had an account. */
export function forgetDrafts(accountId: string): void {
  for (const name of Object.keys(localStorage)) {
    const prefix = [PREFIX, KEY_PREFIX].find((one) => name.startsWith(one));
    if (prefix === undefined) continue;
    const rest = name.slice(prefix.length);
    if (rest.startsWith(`${accountId}.`) || !ID.test(rest)) localStorage.removeItem(name);
  }
}

/**
 * A form's values, kept through navigation and reload until they were sent: nothing typed is lost.
 *
 * @param key - one per form and subject, such as `record.ANIMAL`
 */
export function useDraft<T extends object>(key: string, initial: () => T) {
  const name = `${PREFIX}${account}${key}`;
  const draft = reactive({ ...initial(), ...read<T>(name) }) as T;
  watch(draft, (value) => localStorage.setItem(name, JSON.stringify(value)), { deep: true, flush: 'sync' });
  /** Back to the initial values, once they were sent or given up. */
  function discard(): void {
    Object.assign(draft, initial());
    localStorage.removeItem(name);
  }
  return { draft, discard };
}

/** The key of a form's act, kept beside its draft until the server has answered. */
export function useKeptAct(key: string): Act {
  const name = `${KEY_PREFIX}${account}${key}`;
  return {
    get key() {
      return localStorage.getItem(name);
    },
    set key(value) {
      if (value === null) localStorage.removeItem(name);
      else localStorage.setItem(name, value);
    },
  };
}

function read<T>(name: string): Partial<T> {
  try {
    return JSON.parse(localStorage.getItem(name) ?? '{}') as Partial<T>;
  } catch {
    return {};
  }
}
