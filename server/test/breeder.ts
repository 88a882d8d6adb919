import type { BoardFemale, ClutchView } from '@karyotome/contract';
import { ago } from './days.ts';
import { boardOf } from './wholes.ts';
import { createdBy, type TestClient } from './test-app.ts';

/** What a breeder does and reads in a season, over the API. */
export function breederOf(owner: () => TestClient) {
  const created = createdBy(owner);
  const animal = async (number: string, sex: string, genes: string, massG: number, days = 1500) =>
    (await created('/animals', { number, sex, genes, hatchedOn: ago(days), massG, status: 'breeder' })).id;
  const board = () => boardOf((path) => owner().get(path));
  const female = async (number: string): Promise<BoardFemale> =>
    (await board()).females.find((one) => one.number === number)!;
  const clutchOf = async (id: string): Promise<ClutchView> =>
    (await owner().get(`/clutches/${id}`)).body as ClutchView;
  return { created, animal, board, female, clutchOf };
}
