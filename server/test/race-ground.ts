import { randomUUID } from 'node:crypto';
import type { Page, AnimalView, ClutchView, RackView } from '@karyotome/contract';
import { expect } from 'vitest';
import type { Response } from 'supertest';
import { ago } from './days.ts';
import type { TestApp, TestClient } from './test-app.ts';

export const bodyOf = <T>(answer: Response): T => answer.body as T;

export const statuses = (answers: readonly Response[]): number[] =>
  answers.map(({ status }) => status).toSorted();
export const meal = { species: 'rat', size: 'pup', state: 'frozen-thawed', taken: true } as const;

/** Two people of one collection. */
export interface Ground {
  readonly app: TestApp;
  readonly one: TestClient;
  readonly two: TestClient;
}
/** Acts that are sent at the same time, by what has to come of them. */
export type Races = Readonly<Record<string, (ground: Ground, make: Maker) => Promise<void>>>;

/** Makes what two people then act on at once. */
export class Maker {
  readonly client: TestClient;

  constructor(client: TestClient) {
    this.client = client;
  }

  async id(path: string, body: object): Promise<string> {
    const answer = await this.client.post(path, body);
    expect(answer.status, `${path} ${JSON.stringify(answer.body)}`).toBe(201);
    return bodyOf<{ id: string }>(answer).id;
  }

  animal(sex: string, more: object = {}): Promise<string> {
    return this.id('/animals', { number: `A-${randomUUID().slice(0, 8)}`, sex, genes: 'Pastel', ...more });
  }

  async pair(daysAgo = 90): Promise<{ dam: string; sire: string; pairingId: string }> {
    const [dam, sire] = [await this.animal('female'), await this.animal('male')];
    const answer = await this.client.post('/season/introductions', {
      damId: dam,
      sireId: sire,
      on: ago(daysAgo),
    });
    expect(answer.status).toBe(201);
    return { dam, sire, pairingId: bodyOf<{ pairingId: string }>(answer).pairingId };
  }

  async clutch(
    eggs = 3,
  ): Promise<{ id: string; version: number; eggIds: string[]; sire: string; pairingId: string }> {
    const { pairingId, sire } = await this.pair();
    const id = await this.id('/clutches', { pairingId, laidOn: ago(70), eggs, slugs: 0 });
    const view = bodyOf<ClutchView>(await this.client.get(`/clutches/${id}`));
    return { id, version: view.version, eggIds: view.eggs.map((egg) => egg.id), sire, pairingId };
  }

  async hatched(count = 3): Promise<{ clutch: string; young: string[]; pairingId: string }> {
    const { id, version, pairingId } = await this.clutch(count);
    const answer = await this.client.post(
      `/clutches/${id}/hatchlings`,
      { hatchedOn: ago(10), hatched: count },
      { 'If-Match': `"${version}"` },
    );
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
    return { clutch: id, young: bodyOf<{ ids: string[] }>(answer).ids, pairingId };
  }

  async tubs(count: number): Promise<string[]> {
    const [ladder] = bodyOf<Page<{ id: string }>>(await this.client.get('/ladders?limit=200')).items;
    const rackId = await this.id('/racks', {
      room: 'Room',
      name: `R-${randomUUID().slice(0, 8)}`,
      levels: 1,
      tubsPerLevel: count,
      ladderId: ladder!.id,
      stepPosition: 0,
    });
    return bodyOf<RackView>(await this.client.get(`/racks/${rackId}`)).tubs.map(({ id }) => id);
  }

  async view(id: string): Promise<AnimalView> {
    return bodyOf<AnimalView>(await this.client.get(`/animals/${id}`));
  }
}
