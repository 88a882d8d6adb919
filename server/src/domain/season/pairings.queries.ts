import { withClutchName } from './clutch-name.ts';
import type { ClutchSummary } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

export interface PairingListRow {
  id: string;
  season: number;
  startedOn: string;
  note: string | null;
  damId: string;
  version: number;
  sires: { id: string; weight: number; stored: boolean }[];
}

export type ClutchRowSummary = ClutchSummary & { pairingId: string };

/** Pairings with their candidate sires. */
export function pairingRows(work: Work): Promise<PairingListRow[]> {
  return select<PairingListRow>(
    work,
    `select p.id, p.season, p.started_on as "startedOn", p.note, p.dam_id as "damId", p.version,
            (select coalesce(json_agg(json_build_object('id', s.sire_id, 'weight', s.weight, 'stored', s.stored) order by s.weight desc, s.sire_id), '[]')
               from pairing_sires s where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires
       from pairings p where p.collection_id = :collectionId order by p.season desc, p.started_on desc, p.id`,
  );
}

/** The numbers of who is in a pairing. @returns none where there is no such pairing */
export function numbersOfPairing(
  work: Work,
  params: { readonly id: string },
): Promise<{ dam: string; sires: string | null }[]> {
  return select<{ dam: string; sires: string | null }>(
    work,
    `select d.number as dam,
            (select string_agg(a.number, ', ' order by a.number) from pairing_sires s
               join animals a on a.collection_id = s.collection_id and a.id = s.sire_id
              where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires
       from pairings p join animals d on d.collection_id = p.collection_id and d.id = p.dam_id
      where p.collection_id = :collectionId and p.id = :id`,
    params,
  );
}

/** Clutches with how many of their young are identified. */
export async function clutchRows(work: Work): Promise<Omit<ClutchRowSummary, 'day'>[]> {
  const rows = await select<Omit<ClutchRowSummary, 'day' | 'name'> & { season: number; ordinal: number }>(
    work,
    `select c.id, c.pairing_id as "pairingId", c.season, c.ordinal,
            c.laid_on as "laidOn", c.eggs, c.slugs, c.hatched_on as "hatchedOn", c.hatched,
            (select count(distinct r.animal_id)::int from animals a
               join records r on r.collection_id = a.collection_id and r.animal_id = a.id
                and r.kind = 'identification' and r.voided_at is null
              where a.collection_id = c.collection_id and a.clutch_id = c.id) as identified
       from clutches c where c.collection_id = :collectionId order by c.laid_on desc, c.ordinal desc`,
  );
  return rows.map(withClutchName);
}
