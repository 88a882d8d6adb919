import type {
  BoardFemale,
  BoardMale,
  Page,
  RackSummary,
  RackView,
  RoundRack,
  RoundView,
  SeasonBoardView,
} from '@karyotome/contract';

/* What the interface reads in parts, put together. */

type Get = (path: string) => Promise<{ body: unknown }>;

/** Every page of a list. */
export async function allOf<Item>(get: Get, path: string): Promise<Item[]> {
  const items: Item[] = [];
  for (let after: string | null = ''; after !== null;) {
    const page = (await get(`${path}?limit=200${after === '' ? '' : `&after=${after}`}`)).body as Page<Item>;
    items.push(...page.items);
    after = page.next;
  }
  return items;
}

/** The racks with their tubs, in walking order. */
export async function racksOf(get: Get): Promise<RackView[]> {
  const racks: RackView[] = [];
  for (const { id } of await allOf<RackSummary>(get, '/racks'))
    racks.push((await get(`/racks/${id}`)).body as RackView);
  return racks;
}

/** A round with all its racks. */
export async function roundOf(get: Get): Promise<Omit<RoundView, 'racks'> & { racks: RoundRack[] }> {
  const round = (await get('/rounds')).body as RoundView;
  const racks: RoundRack[] = [];
  for (const { id } of round.racks) racks.push((await get(`/rounds/racks/${id}`)).body as RoundRack);
  return { ...round, racks };
}

/** The season with all that are on the board. */
export async function boardOf(
  get: Get,
): Promise<Omit<SeasonBoardView, 'females' | 'males'> & { females: BoardFemale[]; males: BoardMale[] }> {
  return {
    ...((await get('/season')).body as SeasonBoardView),
    females: await allOf<BoardFemale>(get, '/season/females'),
    males: await allOf<BoardMale>(get, '/season/males'),
  };
}
