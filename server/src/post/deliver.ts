import { createTransport } from 'nodemailer';
import { QueryTypes } from 'sequelize';
import { now, nowMs } from '../clock.ts';
import type { Database } from '../db/work.ts';
import { notifyChanged } from '../domain/changes/notify.ts';
import { toHtml } from './letter-html.ts';

/*
 * Sends what waits, one letter after another. A letter is marked before it is handed over: after a crash nobody knows whether
 * it went out, so it is shown as that and sent again only by a person.
 */

/** Where letters are handed over. */
export interface Mailer {
  readonly transport: ReturnType<typeof createTransport>;
  /** The address of this server's mail. */
  readonly from: string;
}

interface Waiting {
  readonly id: string;
  readonly collectionId: string;
  readonly collection: string;
  readonly replyTo: string | null;
  readonly to: string;
  readonly subject: string;
  readonly paragraphs: readonly string[];
  readonly attempts: number;
}

/** After each failed attempt, until the next; then it has failed. Minutes. */
const PAUSES_MIN = [1, 5, 30, 120, 480] as const;
/** Longer than a mail server takes to answer. */
const SENDING_MIN = 10;
/** RFC 5321, 4.2.1: from here on, trying again changes nothing. */
const PERMANENT = 500;
const LONGEST_ERROR = 300;

const TAKE = `
  update letters l set state = 'sending', state_at = clock_timestamp(), attempts = l.attempts + 1
    from collections c
   where c.id = l.collection_id and (l.collection_id, l.id) = (
     select collection_id, id from letters where state = 'waiting' and next_try_at <= clock_timestamp()
      order by created_at limit 1 for update skip locked)
  returning l.id, l.collection_id as "collectionId", c.name as collection, l.to_address as "to", l.subject, l.paragraphs,
    l.attempts,
    (select a.email from memberships m join accounts a on a.id = m.account_id
      where m.collection_id = c.id and m.role = 'owner' order by a.email limit 1) as "replyTo"`;

/** Sends everything that waits and is due. @returns how many letters were tried */
export async function deliver(database: Database, mailer: Mailer): Promise<number> {
  await giveUpUnfinished(database);
  for (let tried = 0; ; tried++) {
    const [letter] = await database.sequelize.query<Waiting>(TAKE, { type: QueryTypes.SELECT });
    if (!letter) return tried;
    const values = await send(mailer, letter);
    const { collectionId, id } = letter;
    await database.models.letters.update({ ...values, stateAt: now() }, { where: { collectionId, id } });
    notifyChanged(collectionId, { tags: ['letters'], page: null });
  }
}

/** What was being sent when the server ended. */
async function giveUpUnfinished({ sequelize }: Database): Promise<void> {
  await sequelize.query(
    `update letters set state = 'unknown', state_at = clock_timestamp()
      where state = 'sending' and state_at < clock_timestamp() - make_interval(mins => ${SENDING_MIN})`,
  );
}

type Outcome =
  | { readonly state: 'sent'; readonly error: null }
  | { readonly state: 'failed'; readonly error: string }
  | { readonly state: 'waiting'; readonly error: string; readonly nextTryAt: Date };

async function send({ transport, from }: Mailer, letter: Waiting): Promise<Outcome> {
  try {
    await transport.sendMail({
      from: { name: letter.collection, address: from },
      ...(letter.replyTo ? { replyTo: letter.replyTo } : {}),
      to: letter.to,
      subject: letter.subject,
      text: letter.paragraphs.join('\n\n'),
      html: toHtml(letter.paragraphs),
      // The same for each attempt, so that a letter that arrives twice is known as one.
      messageId: `<${letter.id}@karyotome>`,
      headers: { 'Auto-Submitted': 'auto-generated' },
    });
    return { state: 'sent', error: null };
  } catch (error) {
    const { responseCode = 0, message } = error as { responseCode?: number; message: string };
    const told = message.slice(0, LONGEST_ERROR);
    const pause = PAUSES_MIN[letter.attempts - 1];
    if (responseCode >= PERMANENT || pause === undefined) return { state: 'failed', error: told };
    return { state: 'waiting', error: told, nextTryAt: new Date(nowMs() + pause * 60_000) };
  }
}

const EVERY_MS = 5_000;

/** Looks for letters every few seconds. @returns ends it, once what is being sent was sent */
export function startDelivery(
  database: Database,
  mailer: Mailer,
  onFault: (error: unknown) => void,
): () => Promise<void> {
  let running: Promise<unknown> = Promise.resolve();
  let isOver = false;
  const timer = setInterval(() => {
    running = running.then(() => (isOver ? 0 : deliver(database, mailer))).catch(onFault);
  }, EVERY_MS);
  timer.unref();
  return async () => {
    isOver = true;
    clearInterval(timer);
    await running;
    mailer.transport.close();
  };
}
