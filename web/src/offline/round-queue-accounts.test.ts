import {
  ANN,
  BOB,
  idOf,
  kept,
  opened,
  queuedBy,
  record,
  sessionOf,
  settled,
  subject,
  unreachable,
  withEmptyDevice,
} from '../../test/round-queue.ts';
import { NodeBlob } from '../../test/node-blob.ts';
import { expect, test, vi } from 'vitest';
import { ProblemError } from '../api/client.ts';
import { api } from '../api/resources.ts';
import { enqueue } from './device.ts';

withEmptyDevice();

test('entries never leave under another name, though another window signed in as somebody else', async () => {
  const send = vi
    .spyOn(api, 'sendRound')
    .mockRejectedValue(
      new ProblemError({ type: 'urn:karyotome:problem:other-account', title: 'No', status: 403 }),
    );
  vi.spyOn(api, 'session').mockResolvedValue(sessionOf(BOB));
  const { queue, session } = opened();
  await queue.add(subject, record);
  await settled(queue);
  expect(send.mock.lastCall![1]).toBe(idOf(ANN));
  // The server said so, and this page is Bob's now: nothing of Ann's is shown or sent, and all of it is kept.
  await vi.waitFor(() => expect(session.view?.account.id).toBe(idOf(BOB)));
  await vi.waitFor(() => expect(queue.entries).toEqual([]));
  await queue.flush();
  expect(send).toHaveBeenCalledTimes(1);
  expect(await queuedBy(ANN)).toHaveLength(1);
});

test('entries of one collection wait while another one is open, and go on when it is open again', async () => {
  const inCollection = (id: string) => {
    const view = sessionOf(ANN);
    return { ...view, collection: { ...view.collection, id } };
  };
  const refused = new ProblemError({
    type: 'urn:karyotome:problem:other-collection',
    title: 'No',
    status: 403,
  });
  const send = vi.spyOn(api, 'sendRound').mockRejectedValueOnce(refused);
  vi.spyOn(api, 'session').mockResolvedValue(inCollection('there'));
  const { queue, session } = opened();
  session.view = inCollection('here');
  await queue.add(subject, record);
  await settled(queue);
  await vi.waitFor(() => expect(session.settings?.id).toBe('there'));
  await vi.waitFor(() => expect(queue.entries).toEqual([]));
  await queue.flush();
  expect(send).toHaveBeenCalledTimes(1);
  send.mockImplementation(async (entries) => ({ results: kept(entries) }));
  session.view = inCollection('here');
  await vi.waitFor(() => expect(send).toHaveBeenCalledTimes(2));
  await settled(queue);
  expect(await queuedBy(ANN)).toEqual([]);
});

test('entries of a device that knew accounts by their addresses become the account’s', async () => {
  await enqueue({
    key: 'an-old-key',
    accountId: ANN,
    entry: { key: 'an-old-key', animalId: subject.animalId, record },
    photo: null,
    ...subject,
    at: '2026-06-20T18:00:00Z',
    state: 'waiting',
  });
  const send = vi.spyOn(api, 'sendRound').mockImplementation(async (entries) => ({ results: kept(entries) }));
  const { queue } = opened();
  await queue.start();
  await vi.waitFor(() => expect(send).toHaveBeenCalledTimes(1));
  await settled(queue);
  expect(queue.entries).toEqual([]);
});

test('whoever signs out leaves nothing of theirs on the device, with a connection or without', async () => {
  vi.spyOn(api, 'sendRound').mockRejectedValue(unreachable);
  vi.spyOn(api, 'signOut').mockRejectedValue(unreachable);
  const { queue, session } = opened();
  await queue.add(subject, record);
  await settled(queue);
  localStorage.setItem(`karyotome.draft.${idOf(ANN)}.form`, '{}');
  localStorage.setItem('karyotome.draft.an-old-form', '{}');
  localStorage.setItem('karyotome.draft.22222222-2222-4222-8222-222222222222.form', '{}');
  await session.signOut();
  expect(session.view).toBeNull();
  expect(await queuedBy(ANN)).toEqual([]);
  expect(queue.entries).toEqual([]);
  expect(Object.keys(localStorage)).toEqual([
    'karyotome.draft.22222222-2222-4222-8222-222222222222.form',
    'karyotome.session.ended',
  ]);
  // The session stands on the server until it can be told; before that nobody is let in by it.
  const asked = vi.spyOn(api, 'session').mockRejectedValue(unreachable);
  expect(await session.ensure()).toBe(false);
  asked
    .mockResolvedValueOnce(sessionOf(ANN))
    .mockRejectedValue(new ProblemError({ type: 'x', title: 'No', status: 401 }));
  const told = vi.spyOn(api, 'signOut').mockResolvedValue(undefined);
  expect(await session.ensure()).toBe(false);
  expect(told).toHaveBeenCalled();
  expect(localStorage.getItem('karyotome.session.ended')).toBeNull();
});

test('another person on the same device neither sees nor sends them', async () => {
  vi.spyOn(api, 'sendRound').mockRejectedValue(unreachable);
  const ann = opened();
  await ann.queue.add(subject, record);
  await settled(ann.queue);
  const bob = opened(BOB);
  await bob.queue.start();
  expect(bob.queue.entries).toEqual([]);
  expect(await queuedBy(ANN)).toHaveLength(1);
});

test('a photograph is sent in its turn; one that is refused stays, and the rest goes on', async () => {
  const picture = vi
    .spyOn(api, 'addPicture')
    .mockRejectedValue(new ProblemError({ type: 'x', title: 'No picture', status: 415 }));
  const send = vi.spyOn(api, 'sendRound').mockImplementation(async (entries) => ({ results: kept(entries) }));
  const { queue } = opened();
  const key = await queue.addPhoto(
    { ...subject, text: 'a photograph' },
    new NodeBlob(['x'], { type: 'image/png' }) as unknown as Blob,
  );
  await queue.add(subject, record);
  await vi.waitFor(() => expect(queue.waiting).toHaveLength(0));
  expect(picture.mock.lastCall![3]).toBe(key);
  expect(send).toHaveBeenCalledTimes(1);
  expect(queue.refused.map((one) => one.key)).toEqual([key]);
});

test('a photograph whose answer was lost is not said to be taken back; one that never left just goes', async () => {
  const { queue, session } = opened();
  session.isRemembered = true;
  vi.spyOn(api, 'session').mockRejectedValue(unreachable);
  const photo = new NodeBlob(['x'], { type: 'image/png' }) as unknown as Blob;
  const unsent = await queue.addPhoto({ ...subject, text: 'a photograph' }, photo);
  await settled(queue);
  expect(await queue.takeBack(subject, unsent)).toBe(true);
  expect(await queuedBy(ANN)).toEqual([]);
  session.isRemembered = false;
  vi.spyOn(api, 'addPicture').mockRejectedValue(unreachable);
  const tried = await queue.addPhoto({ ...subject, text: 'a photograph' }, photo);
  await settled(queue);
  expect(await queue.takeBack(subject, tried)).toBe(false);
  expect((await queuedBy(ANN)).map(({ key }) => key)).toEqual([tried]);
});
