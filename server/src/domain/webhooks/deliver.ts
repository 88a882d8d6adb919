import http from 'node:http';
import https from 'node:https';
import { isIP } from 'node:net';
import { Webhook } from 'standardwebhooks';
import { nowMs } from '../../clock.ts';
import type { Database } from '../../db/work.ts';
import { isPublic, lookupPublic, PrivateAddressError } from './public-address.ts';
import { giveUpWebhook, noteAttempt, takeDue, type DueMessage } from './webhooks.queries.ts';
import { webhookSecret } from './webhooks.service.ts';

/*
 * Tells programs what changed, signed as Standard Webhooks says: each message until it was taken, at longer and longer intervals,
 * by one of the processes each time.
 */

/** Seconds until the next attempt, after the first, the second and so on: for three days in all. */
const RETRY_S = [5, 300, 1_800, 7_200, 18_000, 36_000, 50_400, 72_000, 86_400];
const AT_ONCE = 10;
const TIMEOUT_MS = 15_000;
/** Longer than all of a batch can take. */
const LEASE_S = 300;
/** The program says that it is gone for good (RFC 9110, 15.5.11). */
const GONE = 410;
/** Where nobody answered. */
const NO_STATUS = 0;

export interface Delivery {
  readonly signingSecret: string;
  /** Whether messages may go to the server's own network. */
  readonly isPrivateAllowed: boolean;
}

/** Sends what is due, until nothing is. */
export async function deliverWebhooks(database: Database, delivery: Delivery): Promise<void> {
  for (;;) {
    const due = await takeDue(database, AT_ONCE, LEASE_S);
    await Promise.all(due.map((message) => deliver(database, message, delivery)));
    if (due.length < AT_ONCE) return;
  }
}

async function deliver(database: Database, message: DueMessage, delivery: Delivery): Promise<void> {
  const status = await post(message, delivery).catch((error: unknown) => {
    // An address within the network is told of like one where nobody is: it says nothing of what is there.
    if (!(error instanceof PrivateAddressError) && !isConnectionError(error)) database.onFault(error);
    return NO_STATUS;
  });
  await noteAttempt(database, message, status, RETRY_S[message.attempts - 1] ?? null);
  if (status === GONE) await giveUpWebhook(database, message);
}

const isConnectionError = (error: unknown): boolean => typeof (error as { code?: unknown }).code === 'string';

/** @returns the status of the answer; where it is redirected it is not followed */
function post(
  { id, webhookId, address, body }: DueMessage,
  { signingSecret, isPrivateAllowed }: Delivery,
): Promise<number> {
  const url = new URL(address);
  const host = url.hostname.replace(/^\[|\]$/g, '');
  if (!isPrivateAllowed && isIP(host) !== 0 && !isPublic(host))
    return Promise.reject(new PrivateAddressError(`${host} is not on the public internet`));
  const text = JSON.stringify(body);
  const at = new Date(nowMs());
  const request = (url.protocol === 'https:' ? https : http).request(url, {
    method: 'POST',
    headers: {
      'Content-Type': 'application/json',
      'Content-Length': Buffer.byteLength(text),
      'User-Agent': 'Karyotome',
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
      'webhook-signature': new Webhook(webhookSecret(webhookId, signingSecret)).sign(id, at, text),
    },
    signal: AbortSignal.timeout(TIMEOUT_MS),
    ...(isPrivateAllowed ? {} : { lookup: lookupPublic }),
  });
  return new Promise((resolve, reject) => {
    request.on('response', (response) => {
      response.resume();
      resolve(response.statusCode ?? NO_STATUS);
    });
    request.on('error', reject);
    request.end(text);
  });
}
