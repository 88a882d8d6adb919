import { Op } from 'sequelize';
import { select, type Work } from '../../db/work.ts';

/** Makes room after the last rack of this room, or after all racks. @returns the place of a rack that is added */
export async function placeForRack(work: Work, room: string): Promise<number> {
  const { models, actor, transaction } = work;
  const [last] = await select<{ place: number }>(
    work,
    `select coalesce(max(walk_order) filter (where room = :room), max(walk_order), 0)::int as place
       from racks where collection_id = :collectionId`,
    { room },
  );
  const { place } = last!;
  await models.racks.increment('walkOrder', {
    where: { collectionId: actor.collectionId, walkOrder: { [Op.gt]: place } },
    transaction,
  });
  return place + 1;
}

/** @param ids - all racks, in their order */
export async function saveWalkOrder(work: Work, ids: readonly string[]): Promise<void> {
  await work.sequelize.query(
    `update racks k set walk_order = o.place
       from unnest($2::uuid[]) with ordinality o (id, place)
      where k.collection_id = $1 and k.id = o.id and k.walk_order <> o.place`,
    { bind: [work.actor.collectionId, ids], transaction: work.transaction },
  );
}
