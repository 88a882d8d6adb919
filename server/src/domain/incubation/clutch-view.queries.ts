import { withClutchName } from '../season/clutch-name.ts';
import type { ClutchRow } from '../../db/breeding-rows.ts';
import type { ClutchView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';

export interface ParentsRow {
  damId: string;
  sires: { id: string; weight: number; stored: boolean }[] | null;
}

/** Clutches that lie and have not hatched, the oldest first. */
export async function clutchesInIncubation(
  work: Work,
): Promise<(Pick<ClutchRow, 'id' | 'laidOn' | 'incubationC' | 'incubatorId'> & { name: string })[]> {
  const rows = await select<
    Pick<ClutchRow, 'id' | 'laidOn' | 'incubationC' | 'incubatorId' | 'season' | 'ordinal'>
  >(
    work,
    `select id, laid_on as "laidOn", incubation_c as "incubationC", incubator_id as "incubatorId",
            season, ordinal
       from clutches where collection_id = :collectionId and hatched_on is null and laid_on <= :today
      order by laid_on`,
    { today: work.today },
  );
  return rows.map(withClutchName);
}

/** A pairing's dam and candidate sires. */
export function parentsOfPairing(work: Work, params: { readonly id: string }): Promise<ParentsRow[]> {
  return select<ParentsRow>(
    work,
    `select p.dam_id as "damId",
            (select json_agg(json_build_object('id', s.sire_id, 'weight', s.weight, 'stored', s.stored)
                             order by s.stored, s.weight desc, s.sire_id)
               from pairing_sires s where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires
       from pairings p where p.collection_id = :collectionId and p.id = :id`,
    params,
  );
}

/** Numbered young whose egg is known. */
export function hatchlingsByEgg(
  work: Work,
  params: { readonly id: string },
): Promise<{ id: string; number: string; eggId: string }[]> {
  return select<{ id: string; number: string; eggId: string }>(
    work,
    `select id, number, egg_id as "eggId" from animals
      where collection_id = :collectionId and clutch_id = :id and egg_id is not null order by number`,
    params,
  );
}

/** Cards that were printed for a clutch, the newest first. */
export function printedCards(
  work: Work,
  params: { readonly id: string },
): Promise<ClutchView['cards'][number][]> {
  return select<ClutchView['cards'][number]>(
    work,
    `select k.id, k.made_at as "madeAt", who.name as by from clutch_cards k join accounts who on who.id = k.author_id
        where k.collection_id = :collectionId and k.clutch_id = :id order by k.made_at desc`,
    params,
  );
}
