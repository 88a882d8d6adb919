import type { EarlierMate } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { OPEN_DAYS } from './board-place.ts';

/** The pairing of a female that a day still belongs to. */
export function openPairingOf(
  work: Work,
  params: { readonly damId: string; readonly season: number; readonly on: string },
): Promise<{ id: string }[]> {
  return select<{ id: string }>(
    work,
    `select p.id from pairings p
      where p.collection_id = :collectionId and p.dam_id = :damId
        and (p.season = :season or p.started_on between cast(:on as date) - ${OPEN_DAYS} and :on)
        and not exists (select 1 from clutches c where c.collection_id = p.collection_id and c.pairing_id = p.id)
      order by p.started_on desc limit 1`,
    params,
  );
}

export function layDaysByPairing(work: Work): Promise<{ pairingId: string; laidOn: string }[]> {
  return select<{ pairingId: string; laidOn: string }>(
    work,
    'select pairing_id as "pairingId", laid_on as "laidOn" from clutches where collection_id = :collectionId',
  );
}

/** Males that were with a female in earlier seasons, with the last day. */
export function earlierMates(
  work: Work,
  params: { readonly damId: string; readonly pairingId: string | null; readonly on: string },
): Promise<EarlierMate[]> {
  return select<EarlierMate>(
    work,
    `select s.sire_id as id, max(greatest(p.started_on, coalesce(e.on_day, p.started_on))) as "lastWithOn"
       from pairings p
       join pairing_sires s on s.collection_id = p.collection_id and s.pairing_id = p.id and not s.stored
       left join pairing_events e on e.collection_id = p.collection_id and e.pairing_id = p.id
        and e.sire_id = s.sire_id and e.voided_at is null
      where p.collection_id = :collectionId and p.dam_id = :damId and p.started_on <= :on
        and p.id is distinct from :pairingId
      group by s.sire_id`,
    params,
  );
}

/** Young of a pairing, the oldest first. */
export function youngOfPairing(
  work: Work,
  params: { readonly pairingId: string },
): Promise<{ id: string; hatchedOn: string | null }[]> {
  return select<{ id: string; hatchedOn: string | null }>(
    work,
    `select a.id, a.hatched_on as "hatchedOn" from animals a
       join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
      where a.collection_id = :collectionId and c.pairing_id = :pairingId order by a.hatched_on`,
    params,
  );
}
