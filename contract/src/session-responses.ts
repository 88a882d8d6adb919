import type { Tag } from './tags.ts';
import type { CollectionSettings } from './session-requests.ts';
import type { Permission } from './routes/route.ts';

export interface SessionView {
  account: { id: string; name: string; email: string };
  role: 'owner' | 'keeper' | 'viewer';
  /** What this person may do in the collection. */
  permissions: Permission[];
  /** `farmZone` is the zone that counts: the one that was said, or until then the server's. */
  collection: CollectionSettings & { id: string; version: number; farmZone: string };
  /** The collection's front page is at `/c/` and this. */
  pageName: string;
  /** So many days later it is on this server than the calendar says: 0 but where it is tried out. */
  daysAhead: number;
  csrfToken: string;
}

/** What people who watch a collection are told at once, beside that something changed. */
export type Notice = { code: 'tub-shared'; facts: { tub: string; numbers: string[] } };

/** How far long work is. `of` is 0 where that is not known yet. */
export interface JobProgress {
  step: 'reading' | 'checking' | 'writing';
  done: number;
  of: number;
}

/** That something in a collection changed: which parts of it. */
export interface ChangeEvent {
  readonly tags: readonly Tag[];
  /** Where it was the daily work of these animals alone; what is shown of another one alone is as it was. */
  readonly animals?: readonly string[];
}
