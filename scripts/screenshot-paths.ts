/* Where the pictures of the main views are taken: found in the demo data, whatever ids it was given. */
import type { Page } from '@playwright/test';
import type { RunningServer } from '../e2e/server.ts';

async function fromApi<T>(page: Page, server: RunningServer, path: string): Promise<T> {
  return (await (await page.request.get(`${server.origin}/api/v1${path}`)).json()) as T;
}
/** The first items of a list, up to 200. */
async function listFromApi<T>(page: Page, server: RunningServer, path: string): Promise<T[]> {
  return (await fromApi<{ items: T[] }>(page, server, `${path}?limit=200`)).items;
}
export const animalPath = (number: string) => async (page: Page, server: RunningServer) => {
  const animals = await listFromApi<{ id: string; number: string }>(page, server, '/animals');
  return `/animals/${animals.find((animal) => animal.number === number)!.id}`;
};
/** The larger clutch that waits to be identified. */
const waitingClutch = async (page: Page, server: RunningServer): Promise<string> => {
  const pairings = await listFromApi<{
    clutches: { id: string; hatched: number | null; identified: number }[];
  }>(page, server, '/pairings');
  const waiting = pairings
    .flatMap(({ clutches }) => clutches)
    .filter(({ hatched, identified }) => hatched !== null && identified === 0);
  return waiting.toSorted((a, b) => b.hatched! - a.hatched!)[0]!.id;
};
export const benchPath = async (page: Page, server: RunningServer): Promise<string> =>
  `/bench/${await waitingClutch(page, server)}`;
/** What somebody outside sees, at an address made for the purpose. */
export const outsidePath = async (page: Page, server: RunningServer): Promise<string> => {
  const id = await waitingClutch(page, server);
  const { hatchlings } = await fromApi<{ hatchlings: { id: string }[] }>(
    page,
    server,
    `/clutches/${id}/bench`,
  );
  const { csrfToken } = await fromApi<{ csrfToken: string }>(page, server, '/session');
  const made = await page.request.post(`${server.origin}/api/v1/clutches/${id}/opinion-links`, {
    headers: { 'X-CSRF-Token': csrfToken },
    data: { animalIds: [hatchlings[0]!.id], note: 'Is the head top washed out, or only pale?' },
  });
  return ((await made.json()) as { path: string }).path;
};
export const publicPath = async (page: Page, server: RunningServer): Promise<string> => {
  const lines = await listFromApi<{ slug: string }>(page, server, '/showcase');
  return `/p/${lines.at(-1)!.slug}`;
};
/** An animal of which a move is advised, or advised against. */
export const advisedPath =
  (verdict: 'move-up' | 'hold' | 'go-back') =>
  async (page: Page, server: RunningServer): Promise<string> => {
    for (const { id } of await listFromApi<{ id: string }>(page, server, '/animals')) {
      const { advice } = await fromApi<{ advice: { verdict: string } }>(page, server, `/animals/${id}`);
      if (advice.verdict === verdict) return `/animals/${id}`;
    }
    throw new Error(`Of no animal the advice is ${verdict}.`);
  };

/** The page of a clutch in the incubator, by its female. */
export const eggsPath = (female: string) => async (page: Page, server: RunningServer) => {
  const females = await listFromApi<{
    number: string;
    pairing: { clutch: { id: string } | null } | null;
  }>(page, server, '/season/females');
  return `/season/clutches/${females.find(({ number }) => number === female)!.pairing!.clutch!.id}`;
};

/** The desk of the clutch that most is to be decided of. */
export const deskPath = async (page: Page, server: RunningServer): Promise<string> => {
  const animals = await listFromApi<{ number: string; clutchId: string | null }>(page, server, '/animals');
  return `/showcase/desk/${animals.find(({ number }) => number === '2601-01')!.clutchId}`;
};
