import { select, type Work } from '../../db/work.ts';

/** A clutch's dam, its candidate sires with their shares, and its young. */
export interface Parentage {
  readonly damId: string;
  readonly sires: readonly { readonly id: string; readonly share: number }[];
  readonly mateIds: readonly string[];
}

export async function parentageOf(work: Work, clutchId: string): Promise<Parentage> {
  const [row] = await select<{
    damId: string;
    sires: { id: string; weight: number }[];
    mateIds: string[] | null;
  }>(
    work,
    `select p.dam_id as "damId",
            (select json_agg(json_build_object('id', s.sire_id, 'weight', s.weight) order by s.weight desc, s.sire_id)
               from pairing_sires s where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires,
            (select json_agg(a.id order by a.number) from animals a
              where a.collection_id = c.collection_id and a.clutch_id = c.id) as "mateIds"
       from clutches c join pairings p on p.collection_id = c.collection_id and p.id = c.pairing_id
      where c.collection_id = :collectionId and c.id = :clutchId`,
    { clutchId },
  );
  const { damId, sires, mateIds } = row!;
  const total = sires.reduce((sum, { weight }) => sum + weight, 0);
  return {
    damId,
    sires: sires.map(({ id, weight }) => ({ id, share: weight / total })),
    mateIds: mateIds ?? [],
  };
}
