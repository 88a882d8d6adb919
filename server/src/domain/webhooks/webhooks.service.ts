import type { WebhookInput } from '@karyotome/contract';
import { now } from '../../clock.ts';
import type { Actor, Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { keyFromSecret } from '../../sealing.ts';
import { countWebhooks, deleteWebhook, insertMessage, insertWebhook } from './webhooks.queries.ts';

const MOST_WEBHOOKS = 10;

/**
 * The secret by which messages to a program are signed, as Standard Webhooks writes it. It is made of the server's own secret,
 * and kept nowhere.
 */
export const webhookSecret = (id: string, secret: string): string =>
  `whsec_${keyFromSecret(secret, id, 'webhook').toString('base64')}`;

/** @param isPrivateAllowed - whether messages may go to the server's own network, and without TLS */
export async function addWebhook(
  work: Work<Actor>,
  { address, events }: WebhookInput,
  isPrivateAllowed: boolean,
): Promise<{ id: string }> {
  const { protocol, username, password } = new URL(address);
  if (protocol !== 'https:' && !isPrivateAllowed)
    throw invalidField(
      'address',
      'must begin with https://: what is sent there is nobody else’s to read',
      'https',
    );
  if (username !== '' || password !== '')
    throw invalidField('address', 'must hold no name and password: messages are signed', 'credentials');
  if ((await countWebhooks(work)) >= MOST_WEBHOOKS)
    throw new Refusal('conflict', `There are ${MOST_WEBHOOKS} already: remove one first.`);
  return { id: await insertWebhook(work, { address, events }) };
}

export async function testWebhook(work: Work, id: string): Promise<void> {
  const body = { type: 'webhook.test', timestamp: now().toISOString(), data: {} };
  if (!(await insertMessage(work, id, 'webhook.test', body))) throw notFound('This webhook');
}

export async function removeWebhook(work: Work, id: string): Promise<void> {
  if (!(await deleteWebhook(work, id))) throw notFound('This webhook');
}
