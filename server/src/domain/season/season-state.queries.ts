import { withClutchName } from './clutch-name.ts';
import { select, type Work } from '../../db/work.ts';
import { OPEN_DAYS } from './board-place.ts';
import { livingSql } from '../animals/living-sql.ts';

/** Pairings of the last months that have no clutch yet. */
export function openPairings(
  work: Work,
): Promise<{ id: string; damId: string; dam: string; isDamHere: boolean }[]> {
  return select<{ id: string; damId: string; dam: string; isDamHere: boolean }>(
    work,
    `select p.id, p.dam_id as "damId", a.number as dam, ${livingSql('a.status')} as "isDamHere" from pairings p
       join animals a on a.collection_id = p.collection_id and a.id = p.dam_id
      where p.collection_id = :collectionId and p.started_on > cast(:today as date) - ${OPEN_DAYS}
        and not exists (select 1 from clutches c where c.collection_id = p.collection_id and c.pairing_id = p.id)
      order by a.number`,
    { today: work.today },
  );
}

interface ClutchOfSeason {
  id: string;
  name: string;
  laidOn: string;
  eggs: number;
  hatchedOn: string | null;
}

export interface PairingOfSeason {
  id: string;
  season: number;
  startedOn: string;
  damId: string;
  version: number;
  sires: { id: string; weight: number; stored: boolean }[];
  clutch: ClutchOfSeason | null;
}

const pairingsSql = (where: string): string => `
  select p.id, p.season, p.started_on as "startedOn", p.dam_id as "damId", p.version,
         (select coalesce(json_agg(json_build_object('id', s.sire_id, 'weight', s.weight, 'stored', s.stored)), '[]')
            from pairing_sires s where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires,
         (select json_build_object('id', c.id, 'season', c.season, 'ordinal', c.ordinal,
                                   'laidOn', c.laid_on, 'eggs', c.eggs, 'hatchedOn', c.hatched_on)
            from clutches c where c.collection_id = p.collection_id and c.pairing_id = p.id
           order by c.laid_on desc limit 1) as clutch
    from pairings p where p.collection_id = :collectionId ${where} order by p.started_on, p.id`;

/** The pairings of females with their sires and their last clutch, the oldest first. */
export async function pairingsOfDams(work: Work, dams: readonly string[]): Promise<PairingOfSeason[]> {
  if (dams.length === 0) return [];
  const rows = await select<
    Omit<PairingOfSeason, 'clutch'> & {
      clutch: (Omit<ClutchOfSeason, 'name'> & { season: number; ordinal: number }) | null;
    }
  >(work, pairingsSql('and p.dam_id in (:dams)'), { dams });
  return rows.map((row) => ({ ...row, clutch: row.clutch && withClutchName(row.clutch) }));
}

export interface PastRow {
  id: string;
  laidOn: string;
  incubatorId: string | null;
  incubationC: number | null;
  ovulatedOn: string | null;
  shedOn: string | null;
  pippedOn: string | null;
}

const PAST_SQL = `
  select c.id, c.laid_on as "laidOn", c.incubator_id as "incubatorId", c.incubation_c as "incubationC",
         (select max(e.on_day) from pairing_events e where e.collection_id = c.collection_id and e.pairing_id = c.pairing_id
           and e.kind = 'ovulation' and e.voided_at is null and e.on_day <= c.laid_on) as "ovulatedOn",
         (select max(e.on_day) from pairing_events e where e.collection_id = c.collection_id and e.pairing_id = c.pairing_id
           and e.kind = 'pre-lay-shed' and e.voided_at is null and e.on_day <= c.laid_on) as "shedOn",
         (select min(e.on_day) from egg_events e where e.collection_id = c.collection_id and e.clutch_id = c.id
           and e.kind in ('pip', 'out') and e.voided_at is null) as "pippedOn"
    from clutches c where c.collection_id = :collectionId`;

/** What earlier clutches tell of how long things take. */
export function pastClutches(work: Work): Promise<PastRow[]> {
  return select<PastRow>(work, PAST_SQL);
}
