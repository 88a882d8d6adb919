import { addDays } from '@karyotome/core';
import { expect } from 'vitest';
import { machineToday } from '../src/db/work.ts';
import type { TestClient } from './test-app.ts';

/** Enters animals of a family and catalogue entries, and reads what follows. @param owner - read when it is needed */
export function geneticsActs(owner: () => TestClient) {
  const ago = (days: number): string => addDays(machineToday(), -days);
  async function created(path: string, body: object): Promise<string> {
    const response = await owner().post(path, body);
    expect(response.status, JSON.stringify(response.body)).toBe(201);
    return (response.body as { id: string }).id;
  }
  const founder = (number: string, sex: string, genes: string): Promise<string> =>
    created('/animals', { number, sex, genes, hatchedOn: ago(1500) });
  const young = (number: string, damId: string, sireId: string, genes: string): Promise<string> =>
    created('/animals', { number, sex: 'unknown', damId, sireId, genes, hatchedOn: ago(300) });
  const read = async <T>(path: string): Promise<T> => (await owner().get(path)).body as T;
  return { ago, created, founder, young, read };
}
