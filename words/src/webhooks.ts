import type { WebhookEvent } from '@karyotome/contract';

/** What a program can be told of. */
export const WEBHOOK_EVENT_WORDS: Readonly<Record<WebhookEvent, string>> = {
  'record.added': 'records',
  'claims.changed': 'genetic claims',
  'status.changed': 'sales and status',
};
