import type { BinEntry, Page, Problem, Restored } from '@karyotome/contract';
import type { TestClient } from './test-app.ts';

/** What is done with the bin, over the API. */
export function binOf(owner: () => TestClient) {
  const entries = async (): Promise<BinEntry[]> => ((await owner().get('/bin')).body as Page<BinEntry>).items;
  /** Restores what was deleted last. */
  const restore = async (): Promise<{ status: number; body: Restored & Problem }> => {
    const [entry] = await entries();
    return (await owner().post(`/bin/${entry!.id}/restore`)) as { status: number; body: Restored & Problem };
  };
  const remove = (path: string): ReturnType<TestClient['post']> =>
    owner().post(`${path}/delete`, { reason: 'Entered twice' });
  return { entries, restore, remove };
}
