import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import pg from 'pg';

/*
 * What every process is told: heard at once in this one, and in the others, on this machine or another, through PostgreSQL's
 * LISTEN and NOTIFY. Nothing is kept: whoever was cut off is told that it may have missed something.
 */

const CHANNEL = 'karyotome';
/** A message is shorter than what PostgreSQL carries (8,000 bytes). */
const MOST_BYTES = 7_900;
const FIRST_PAUSE_MS = 250;
const LONGEST_PAUSE_MS = 10_000;

/** Tells this process's own messages, which were heard already. */
const ORIGIN = randomUUID();
const heard = new EventEmitter().setMaxListeners(0);
const MISSED = Symbol('missed');

let send: ((text: string) => void) | null = null;

/** Tells every process. @param topic - whose listeners hear it */
export function tellAll(topic: string, data: unknown): void {
  heard.emit(topic, data);
  const text = JSON.stringify({ origin: ORIGIN, topic, data });
  if (Buffer.byteLength(text) <= MOST_BYTES) send?.(text);
}

/** @returns ends it */
export function onTold<Data>(topic: string, run: (data: Data) => void): () => void {
  heard.on(topic, run);
  return () => heard.off(topic, run);
}

/** Called when this process was cut off from the others, and is not any more. @returns ends it */
export function onMissed(run: () => void): () => void {
  heard.on(MISSED, run);
  return () => heard.off(MISSED, run);
}

/**
 * Joins this process to the others on the same database.
 *
 * @param url - of the database itself: a pooler between gives each transaction another connection, and none can listen
 * @returns leaves
 */
export function joinRelay(url: string, onFault: (error: unknown) => void): () => Promise<void> {
  let listener: pg.Client | null = null;
  let isLeaving = false;
  let pause = FIRST_PAUSE_MS;
  let timer: NodeJS.Timeout | undefined;
  const connect = async (isAgain: boolean): Promise<void> => {
    const client = new pg.Client({ connectionString: url, keepAlive: true });
    // From here on, not only once it is open: whoever leaves meanwhile ends it.
    listener = client;
    client.on('error', () => undefined);
    client.on('end', () => {
      listener = null;
      if (isLeaving) return;
      timer = setTimeout(() => void again(), pause);
      pause = Math.min(2 * pause, LONGEST_PAUSE_MS);
    });
    client.on('notification', ({ payload }) => hear(payload ?? ''));
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
    pause = FIRST_PAUSE_MS;
    if (isAgain) heard.emit(MISSED);
  };
  // A connection that could not be opened ends too, and is tried again by that.
  const again = (): Promise<void> => connect(true).catch(() => undefined);
  void connect(false).catch((error: unknown) => !isLeaving && onFault(error));
  const sender = new pg.Pool({ connectionString: url, max: 1, keepAlive: true });
  sender.on('error', () => undefined);
  send = (text) => void sender.query('select pg_notify($1, $2)', [CHANNEL, text]).catch(onFault);
  return async () => {
    isLeaving = true;
    send = null;
    clearTimeout(timer);
    await Promise.all([listener?.end(), sender.end()]);
  };
}

function hear(payload: string): void {
  const { origin, topic, data } = JSON.parse(payload) as { origin: string; topic: string; data: unknown };
  if (origin !== ORIGIN) heard.emit(topic, data);
}
