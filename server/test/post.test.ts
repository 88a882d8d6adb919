import { simpleParser } from 'mailparser';
import { createTransport } from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import type { AddressInfo } from 'node:net';
import type { LetterView, Page, ReceivedLetterView } from '@karyotome/contract';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { writing } from '../src/db/work.ts';
import { writeLetter } from '../src/domain/post/letters.service.ts';
import { deliver, type Mailer } from '../src/post/deliver.ts';
import { openSimulatedOffice, type SimulatedOffice } from '../src/post/simulated-office.ts';
import { ago } from './days.ts';
import { createdBy, startTestApp, type TestApp, type TestClient } from './test-app.ts';

/* Letters are drafted, looked at, sent once, and what became of each is kept. */

let app: TestApp;
let owner: TestClient;
let office: SimulatedOffice;
let mailer: Mailer;
const created = createdBy(() => owner);
const FROM = 'post@karyotome.local';
const over = (port: number): Mailer => ({
  transport: createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true }),
  from: FROM,
});

beforeAll(async () => {
  app = await startTestApp();
  owner = app.owner;
  office = await openSimulatedOffice(app.database);
  mailer = over(office.port);
});
afterAll(async () => {
  mailer.transport.close();
  await office.close();
  await app.close();
});

let count = 0;
const person = async (email: string, consentOn: string | null = ago(9)): Promise<string> =>
  (await created('/persons', { name: `Person ${++count}`, email, consentOn })).id;
async function draft(personId: string, to: string, sentKey = `key-${count}`): Promise<LetterView> {
  const { collectionId } = (await app.database.models.persons.findByPk(personId))!.get();
  await writing(app.database, { collectionId }, (work) =>
    writeLetter(work, {
      letter: {
        code: 'animal-offered',
        facts: {
          collection: 'Test collection',
          name: 'Ada <b>',
          number: 'H-1',
          label: 'Pastel 66% het Clown',
          sex: 'female',
          price: { amount: 450, currency: 'EUR' },
          until: '2026-12-24',
          address: 'http://farm.example/p/abc',
        },
      },
      to,
      sentKey,
      personId,
      state: 'draft',
    }),
  );
  return (await letters()).find((letter) => letter.person?.id === personId)!;
}
const letters = async (): Promise<LetterView[]> =>
  ((await owner.get('/letters?limit=200')).body as Page<LetterView>).items;
const stateOf = async (id: string): Promise<LetterView> =>
  (await letters()).find((letter) => letter.id === id)!;
const send = (...ids: string[]) => owner.post('/letters/send', { ids });

describe('a letter', () => {
  test('waits until it was looked at, then arrives as text and HTML with nothing in it taken for markup', async () => {
    const { id } = await draft(await person('ada@example.test'), 'ada@example.test');
    expect(await deliver(app.database, mailer)).toBe(0);
    expect((await send(id)).status).toBe(204);
    expect(await deliver(app.database, mailer)).toBe(1);
    expect(await stateOf(id)).toMatchObject({ state: 'sent', attempts: 1, error: null });
    const { message } = (await app.database.models.simulatedMail.findOne({ where: { letterId: id } }))!.get();
    // Read back by the SMTP package's own parser.
    const mail = await simpleParser(message);
    expect(mail.subject).toBe('H-1 fits what you wait for');
    expect(mail.from?.value).toEqual([{ name: 'Test collection', address: FROM }]);
    expect(mail.messageId).toBe(`<${id}@karyotome>`);
    expect(mail.text).toContain('€450');
    expect(mail.html).toContain('Ada &lt;b&gt;');
    expect(mail.html).toContain('<a href="http://farm.example/p/abc">');
    const shown = (await owner.get(`/letters/${id}/received`)).body as ReceivedLetterView;
    expect(shown).toMatchObject({ to: 'ada@example.test', subject: mail.subject });
    expect((await send(id)).status).toBe(409);
  });

  test('is written once for one reason', async () => {
    const id = await person('twice@example.test');
    await draft(id, 'twice@example.test', 'one reason');
    await draft(id, 'twice@example.test', 'one reason');
    expect((await letters()).filter((letter) => letter.person?.id === id)).toHaveLength(1);
  });

  test('goes to nobody who has not agreed, also where consent was taken back since', async () => {
    const { id } = await draft(await person('no@example.test', null), 'no@example.test');
    expect((await send(id)).status).toBe(409);
    expect(await stateOf(id)).toMatchObject({ state: 'draft' });
  });

  test('that is refused has failed, with what the server answered, and can be discarded', async () => {
    const { id } = await draft(await person('gone@nowhere.invalid'), 'gone@nowhere.invalid');
    await send(id);
    await deliver(app.database, mailer);
    const letter = await stateOf(id);
    expect(letter).toMatchObject({ state: 'failed', attempts: 1 });
    expect(letter.error).toContain('550');
    expect((await owner.delete(`/letters/${id}`)).status).toBe(204);
    expect((await stateOf(id)).state).toBe('discarded');
  });

  test('is tried again later where the server is busy or away', async () => {
    const busy = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS', 'AUTH'],
      onRcptTo: (_address, _session, done) => done(Object.assign(new Error('later'), { responseCode: 451 })),
    });
    await new Promise<void>((resolve) => busy.listen(0, '127.0.0.1', resolve));
    const over451 = over((busy.server.address() as AddressInfo).port);
    const { id } = await draft(await person('busy@example.test'), 'busy@example.test');
    await send(id);
    await deliver(app.database, over451);
    await new Promise<void>((resolve) => busy.close(() => resolve()));
    expect(await stateOf(id)).toMatchObject({ state: 'waiting', attempts: 1 });
    await app.database.sequelize.query(
      "update letters set next_try_at = clock_timestamp() where state = 'waiting'",
    );
    await deliver(app.database, over451);
    expect(await stateOf(id)).toMatchObject({ state: 'waiting', attempts: 2 });
    await app.database.sequelize.query(
      "update letters set next_try_at = clock_timestamp() where state = 'waiting'",
    );
    await deliver(app.database, mailer);
    expect(await stateOf(id)).toMatchObject({ state: 'sent', attempts: 3, error: null });
  });

  test('that two send at once arrives once', async () => {
    const { id } = await draft(await person('once@example.test'), 'once@example.test');
    await send(id);
    await Promise.all([
      deliver(app.database, mailer),
      deliver(app.database, mailer),
      deliver(app.database, mailer),
    ]);
    expect(await app.database.models.simulatedMail.count({ where: { letterId: id } })).toBe(1);
  });

  test('that was being sent when the server ended is shown as that, and waits for a person', async () => {
    const { id } = await draft(await person('cut@example.test'), 'cut@example.test');
    await app.database.sequelize.query(
      `update letters set state = 'sending', state_at = clock_timestamp() - interval '1 hour' where id = '${id}'`,
    );
    await deliver(app.database, mailer);
    expect((await stateOf(id)).state).toBe('unknown');
    expect((await send(id)).status).toBe(204);
  });

  test('goes with the person who is erased', async () => {
    const personId = await person('erase@example.test');
    const { id } = await draft(personId, 'erase@example.test');
    await owner.delete(`/persons/${personId}`);
    expect(await stateOf(id)).toMatchObject({ state: 'discarded', to: null, subject: '', paragraphs: [] });
  });
});

test('viewers read no letters', async () => {
  const viewer = await app.newCollection('Looking', 'viewer');
  expect((await viewer.get('/letters')).status).toBe(403);
});
