import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';
import type { Database } from '../db/work.ts';

/*
 * Where no mail server is configured, and in the demo and tests: an SMTP server on loopback that keeps every letter instead of
 * passing it on. Addresses under `.invalid`, which RFC 2606 sets apart for what does not exist, are refused as a real server
 * would refuse them.
 */

const UNKNOWN_ADDRESS = /@([^@]+\.)?invalid$/i;
const OWN_ID = /^Message-ID:\s*<([0-9a-f-]{36})@karyotome>/im;
const MOST_BYTES = 2 ** 20;

export interface SimulatedOffice {
  readonly port: number;
  close(): Promise<void>;
}

export async function openSimulatedOffice(database: Database): Promise<SimulatedOffice> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: MOST_BYTES,
    logger: false,
    onRcptTo({ address }, _session, done) {
      if (UNKNOWN_ADDRESS.test(address))
        done(Object.assign(new Error('No such mailbox here'), { responseCode: 550 }));
      else done();
    },
    onData(stream, _session, done) {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        keep(database, Buffer.concat(parts).toString('utf8')).then(
          () => done(),
          (error: unknown) => done(error instanceof Error ? error : new Error(String(error))),
        );
      });
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.on('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  return {
    port: (server.server.address() as AddressInfo).port,
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

async function keep({ models }: Database, message: string): Promise<void> {
  const letterId = OWN_ID.exec(message)?.[1];
  const letter = letterId === undefined ? null : await models.letters.findOne({ where: { id: letterId } });
  if (!letter)
    throw Object.assign(new Error('Only letters of this application are taken'), { responseCode: 550 });
  const { collectionId, id } = letter.get();
  await models.simulatedMail.create({ id: randomUUID(), collectionId, letterId: id, message });
}
