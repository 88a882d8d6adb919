import { randomUUID } from 'node:crypto';
import type { AnimalView, Page, AnimalSummary, RoundEntry, RoundResult } from '@karyotome/contract';
import { expect } from 'vitest';
import { bodyOf, meal, statuses, type Races } from './race-ground.ts';
import { TODAY } from './days.ts';

/** Of records, labels, pages and files. */
export const RECORD_RACES: Races = {
  'two rounds go over the same animals in opposite order: every entry is kept': async (
    { one, two },
    make,
  ) => {
    const animals = await Promise.all(Array.from({ length: 6 }, () => make.animal('female')));
    const entries = (ids: readonly string[]): RoundEntry[] =>
      ids.map((animalId) => ({
        key: randomUUID(),
        animalId,
        record: { kind: 'feeding', on: TODAY, body: { ...meal } },
      }));
    const answers = await Promise.all([
      one.post('/rounds/entries', { entries: entries(animals) }),
      two.post('/rounds/entries', { entries: entries(animals.toReversed()) }),
    ]);
    expect(statuses(answers)).toEqual([200, 200]);
    const results = answers.flatMap((answer) => bodyOf<{ results: RoundResult[] }>(answer).results);
    expect(results.every(({ status }) => status === 'kept')).toBe(true);
  },

  'a record and its undo cross on the way: it does not stand': async ({ one }, make) => {
    const animalId = await make.animal('female');
    const key = randomUUID();
    const record = { key, animalId, record: { kind: 'feeding', on: TODAY, body: { ...meal } } };
    const answers = await Promise.all([
      one.post('/rounds/entries', { entries: [{ key: randomUUID(), undo: key }] }),
      one.post('/rounds/entries', { entries: [record] }),
    ]);
    expect(statuses(answers)).toEqual([200, 200]);
    // Sent again after a lost answer, it stays taken back.
    await one.post('/rounds/entries', { entries: [record] });
    const { records } = await make.view(animalId);
    expect(records.filter(({ kind, voided }) => kind === 'feeding' && !voided)).toEqual([]);
  },

  'labels are printed by two: each has its own number': async ({ app, one, two }, make) => {
    const animalId = await make.animal('female');
    const order = { animalIds: [animalId], kind: 'full', size: 'roll-50x25' };
    const answers = await Promise.all([one.post('/labels', order), two.post('/labels', order)]);
    expect(statuses(answers)).toEqual([201, 201]);
    const printed = await app.database.models.printedLabels.findAll({ where: { animalId } });
    expect(printed.map((row) => row.get().issue).toSorted()).toEqual([1, 2]);
  },

  'one thing is changed by two from the same version: the second is told that it is stale': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const { version } = await make.view(id);
    const answers = await Promise.all(
      [one, two].map((client, i) =>
        client.patch(`/animals/${id}`, { name: `Name ${i}` }, { 'If-Match': `"${version}"` }),
      ),
    );
    expect(statuses(answers)).toEqual([200, 412]);
  },

  'one write is sent twice at once under its key: it takes effect once, and both are answered': async (
    { one },
    make,
  ) => {
    const id = await make.animal('female');
    const key = randomUUID();
    const weight = { kind: 'weight', on: TODAY, body: { massG: 321 } };
    const answers = await Promise.all(
      [0, 1].map(() => one.post(`/animals/${id}/records`, weight, { 'Idempotency-Key': key })),
    );
    expect(statuses(answers)).toEqual([201, 201]);
    expect(new Set(answers.map((answer) => bodyOf<{ id: string }>(answer).id)).size).toBe(1);
    const { records } = await make.view(id);
    expect(records.filter(({ kind }) => kind === 'weight')).toHaveLength(1);
  },

  'one record is voided by two: the second is told': async ({ one, two }, make) => {
    const id = await make.animal('female');
    const record = await make.id(`/animals/${id}/records`, {
      kind: 'weight',
      on: TODAY,
      body: { massG: 99 },
    });
    const answers = await Promise.all(
      [one, two].map((client) => client.post(`/records/${record}/void`, { reason: 'slip' })),
    );
    expect(statuses(answers)).toEqual([204, 409]);
  },

  'one animal is published by two: it has one page': async ({ one, two }, make) => {
    const id = await make.animal('female');
    const answers = await Promise.all(
      [one, two].map((client) => client.put(`/animals/${id}/publication`, { text: 'Words' })),
    );
    expect(statuses(answers)).toEqual([200, 200]);
    expect(new Set(answers.map((answer) => bodyOf<{ slug: string }>(answer).slug)).size).toBe(1);
  },

  'an animal is deleted while something is recorded of it: the record is refused, or goes along': async (
    { one, two },
    make,
  ) => {
    const id = await make.animal('female');
    const answers = await Promise.all([
      one.post(`/animals/${id}/delete`, { reason: 'x' }),
      two.post(`/animals/${id}/records`, { kind: 'note', on: TODAY, body: { text: 'seen' } }),
    ]);
    expect([
      [201, 404],
      [201, 201],
    ]).toContainEqual(answers.map(({ status }) => status));
    await one.post(`/bin/${bodyOf<{ id: string }>(answers[0]!).id}/restore`);
    const { records } = bodyOf<AnimalView>(await one.get(`/animals/${id}`));
    expect(records.filter(({ kind }) => kind === 'note')).toHaveLength(answers[1]!.status === 201 ? 1 : 0);
  },

  'a file is taken twice at once: its rows are there once': async ({ one, two }, make) => {
    const animal = await make.animal('female');
    const { number } = bodyOf<AnimalView>(await one.get(`/animals/${animal}`));
    const file = Buffer.from(`number,date,weight\n${number},${TODAY},1234\n`);
    const { id } = bodyOf<{ id: string }>(await one.upload('/imports', 'text/csv', file));
    const answers = await Promise.all([one, two].map((client) => client.post(`/imports/${id}/run`, {})));
    expect(statuses(answers)).toEqual([201, 409]);
    const { records } = bodyOf<AnimalView>(await one.get(`/animals/${animal}`));
    expect(records.filter(({ body }) => 'massG' in body && body.massG === 1234)).toHaveLength(1);
  },

  'one file is brought in by two: its animals are there once': async ({ one, two }) => {
    const number = `I-${randomUUID().slice(0, 8)}`;
    const file = Buffer.from(`number,sex\n${number},male\n${number}b,female\n`);
    const drafts = await Promise.all([one, two].map((client) => client.upload('/imports', 'text/csv', file)));
    const answers = await Promise.all(
      [one, two].map((client, i) => client.post(`/imports/${bodyOf<{ id: string }>(drafts[i]!).id}/run`, {})),
    );
    expect(statuses(answers)).toEqual([201, 422]);
    const animals = bodyOf<Page<AnimalSummary>>(await one.get('/animals?limit=200')).items;
    expect(animals.filter((animal) => animal.number.startsWith(number))).toHaveLength(2);
  },
};
