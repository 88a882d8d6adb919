import type { SeasonEventView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

/** Standing events of pairings, or of all, in order. */
export function eventRows(
  work: Work,
  { pairingIds }: { readonly pairingIds: readonly string[] | null },
): Promise<(SeasonEventView & { pairingId: string })[]> {
  if (pairingIds?.length === 0) return Promise.resolve([]);
  return select<SeasonEventView & { pairingId: string }>(
    work,
    `select e.id, e.pairing_id as "pairingId", e.kind, e.on_day as "on", e.sire_id as "sireId", e.note, who.name as author
       from pairing_events e join accounts who on who.id = e.author_id
      where e.collection_id = :collectionId and e.voided_at is null
        ${pairingIds === null ? '' : 'and e.pairing_id in (:pairingIds)'}
      order by e.on_day, e.recorded_at`,
    { pairingIds },
  );
}

/** When a pairing's first clutch was laid. */
export function firstLayDay(work: Work, params: { readonly id: string }): Promise<{ laidOn: string }[]> {
  return select<{ laidOn: string }>(
    work,
    `select laid_on as "laidOn" from clutches where collection_id = :collectionId and pairing_id = :id order by laid_on limit 1`,
    params,
  );
}
