import { withClutchName } from '../../domain/season/clutch-name.ts';
import { select, type Work } from '../../db/work.ts';

/** Where a printed clutch card is kept, and its clutch's name. */
export async function printedCard(
  work: Work,
  params: { readonly id: string },
): Promise<{ file: string; name: string }[]> {
  const rows = await select<{ file: string; season: number; ordinal: number }>(
    work,
    `select d.file, c.season, c.ordinal
       from clutch_cards d join clutches c on c.collection_id = d.collection_id and c.id = d.clutch_id
      where d.collection_id = :collectionId and d.id = :id`,
    params,
  );
  return rows.map(withClutchName);
}
