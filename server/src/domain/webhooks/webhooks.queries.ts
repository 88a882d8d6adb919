import type { WebhookEvent, WebhookView } from '@karyotome/contract';
import { QueryTypes } from 'sequelize';
import { rfc3339 } from '../../db/statement.ts';
import { select, type Actor, type Database, type Work } from '../../db/work.ts';

export function webhookViews(work: Work): Promise<WebhookView[]> {
  return select<WebhookView>(
    work,
    `select w.id, w.address, w.events, who.name as by, ${rfc3339('w.created_at')} as "createdAt",
            last.last_status as "lastStatus", ${rfc3339('last.last_at')} as "lastAt",
            (select count(*)::int from webhook_messages m where m.collection_id = w.collection_id
                and m.webhook_id = w.id and m.state = 'waiting') as waiting,
            (select count(*)::int from webhook_messages m where m.collection_id = w.collection_id
                and m.webhook_id = w.id and m.state = 'failed') as failed
       from webhooks w join accounts who on who.id = w.author_id
       left join lateral (select m.last_status, m.last_at from webhook_messages m
           where m.collection_id = w.collection_id and m.webhook_id = w.id and m.last_at is not null
           order by m.last_at desc limit 1) last on true
      where w.collection_id = :collectionId order by w.created_at, w.id`,
  );
}

export async function countWebhooks(work: Work): Promise<number> {
  const [row] = await select<{ count: number }>(
    work,
    'select count(*)::int as count from webhooks where collection_id = :collectionId',
  );
  return row!.count;
}

export async function insertWebhook(
  work: Work<Actor>,
  params: { readonly address: string; readonly events: readonly WebhookEvent[] },
): Promise<string> {
  const [row] = await select<{ id: string }>(
    work,
    `insert into webhooks (collection_id, address, events, author_id)
     values (:collectionId, :address, :events::text[], :accountId) returning id`,
    { ...params, accountId: work.actor.accountId },
  );
  return row!.id;
}

/** @returns whether there was one */
export async function deleteWebhook(work: Work, id: string): Promise<boolean> {
  const rows = await select(
    work,
    'delete from webhooks where collection_id = :collectionId and id = :id returning id',
    { id },
  );
  return rows.length > 0;
}

/** @returns whether there is such a webhook */
export async function insertMessage(work: Work, id: string, event: string, body: object): Promise<boolean> {
  const rows = await select(
    work,
    `insert into webhook_messages (collection_id, webhook_id, event, body)
     select collection_id, id, :event, :body from webhooks where collection_id = :collectionId and id = :id returning id`,
    { id, event, body: JSON.stringify(body) },
  );
  return rows.length > 0;
}

export interface DueMessage {
  readonly collectionId: string;
  readonly id: string;
  readonly webhookId: string;
  readonly address: string;
  readonly body: object;
  readonly attempts: number;
}

/** Messages whose time has come. They are nobody else's for a while: who takes them either sends them, or dies. */
export function takeDue({ sequelize }: Database, limit: number, leaseS: number): Promise<DueMessage[]> {
  return sequelize.query<DueMessage>(
    `with due as (select m.collection_id, m.id from webhook_messages m
                   where m.state = 'waiting' and m.next_try_at <= clock_timestamp()
                   order by m.next_try_at limit $1 for update skip locked)
     update webhook_messages m set attempts = m.attempts + 1, next_try_at = clock_timestamp() + make_interval(secs => $2)
       from due, webhooks w
      where m.collection_id = due.collection_id and m.id = due.id
        and w.collection_id = m.collection_id and w.id = m.webhook_id
     returning m.collection_id as "collectionId", m.id, m.webhook_id as "webhookId", w.address, m.body, m.attempts`,
    { bind: [limit, leaseS], type: QueryTypes.SELECT },
  );
}

/** @param retryS - in how many seconds it is tried again; null for never */
export async function noteAttempt(
  { sequelize }: Database,
  { collectionId, id }: Pick<DueMessage, 'collectionId' | 'id'>,
  status: number,
  retryS: number | null,
): Promise<void> {
  const isSent = status >= 200 && status < 300;
  const state = isSent ? 'sent' : retryS === null ? 'failed' : 'waiting';
  await sequelize.query(
    `update webhook_messages set state = $3, last_status = $4, last_at = clock_timestamp(),
            next_try_at = clock_timestamp() + make_interval(secs => $5)
      where collection_id = $1 and id = $2`,
    { bind: [collectionId, id, state, status, retryS ?? 0] },
  );
}

/** A program that is gone for good is told nothing more. */
export async function giveUpWebhook(
  { sequelize }: Database,
  { collectionId, webhookId }: Pick<DueMessage, 'collectionId' | 'webhookId'>,
): Promise<void> {
  await sequelize.query(
    `update webhook_messages set state = 'failed' where collection_id = $1 and webhook_id = $2 and state = 'waiting'`,
    { bind: [collectionId, webhookId] },
  );
  await sequelize.query(`update webhooks set events = '{}' where collection_id = $1 and id = $2`, {
    bind: [collectionId, webhookId],
  });
}
