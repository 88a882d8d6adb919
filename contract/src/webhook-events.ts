/**
 * What other programs are told of, by a signed request to an address that they gave (Standard Webhooks).
 *
 * `record.added`: a record of an animal. `claims.changed`: what an animal is said to be or carry. `status.changed`: an animal
 * was reserved, sold, came back, died, and so on. `webhook.test`: asked for by hand.
 */
export const WEBHOOK_EVENTS = ['record.added', 'claims.changed', 'status.changed'] as const;
export type WebhookEvent = (typeof WEBHOOK_EVENTS)[number];

/** Somewhere that is told. */
export interface WebhookView {
  id: string;
  address: string;
  events: WebhookEvent[];
  by: string;
  /** RFC 3339. */
  createdAt: string;
  /** The last attempt: an HTTP status, 0 where nobody answered; null before the first. */
  lastStatus: number | null;
  lastAt: string | null;
  /** Messages that wait for their next attempt. */
  waiting: number;
  /** Messages that were given up. */
  failed: number;
}

export interface NewWebhook {
  id: string;
  /** By which what it is sent is signed, as Standard Webhooks writes it: `whsec_` and base64. Told this once. */
  secret: string;
}
