import type { ClutchSummary, ProjectSummary } from '@karyotome/contract';
import type { ProjectAnimalRow } from '../../db/project-rows.ts';
import { select, type Work } from '../../db/work.ts';
import { withClutchName } from '../season/clutch-name.ts';

type ProjectBase = Omit<ProjectSummary, 'shared' | 'animals'>;

/** Those under way first, by name. */
export function projectRows(work: Work): Promise<ProjectBase[]> {
  return select<ProjectBase>(
    work,
    `select id, name, targets, note, plan, started_on as "startedOn", ended_on as "endedOn", version
       from projects where collection_id = :collectionId order by ended_on is not null, ended_on desc, name`,
  );
}

export type ProjectAnimalOf = Pick<
  ProjectAnimalRow,
  'id' | 'projectId' | 'animalId' | 'reason' | 'step' | 'addedOn'
>;

/** The animals of all projects, in the order in which they came. */
export function projectAnimalRows(work: Work): Promise<ProjectAnimalOf[]> {
  return select<ProjectAnimalOf>(
    work,
    `select j.id, j.project_id as "projectId", j.animal_id as "animalId", j.reason, j.step, j.added_on as "addedOn"
       from project_animals j join animals a on a.collection_id = j.collection_id and a.id = j.animal_id
      where j.collection_id = :collectionId order by j.added_on, a.number`,
  );
}

/** The projects that an animal belongs to, those under way first. */
export function projectsOfAnimal(
  work: Work,
  animalId: string,
): Promise<{ id: string; name: string; reason: string | null; isEnded: boolean }[]> {
  return select(
    work,
    `select p.id, p.name, j.reason, p.ended_on is not null as "isEnded"
       from project_animals j join projects p on p.collection_id = j.collection_id and p.id = j.project_id
      where j.collection_id = :collectionId and j.animal_id = :animalId order by p.ended_on is not null, p.name`,
    { animalId },
  );
}

export interface PlannedRow {
  readonly id: string;
  readonly projectId: string;
  readonly season: number;
  readonly damId: string;
  readonly sireId: string;
}

export function plannedRows(work: Work): Promise<PlannedRow[]> {
  return select<PlannedRow>(
    work,
    `select id, project_id as "projectId", season, dam_id as "damId", sire_id as "sireId"
       from planned_pairings where collection_id = :collectionId order by season desc, id`,
  );
}

export interface MadeRow {
  readonly id: string;
  readonly season: number;
  readonly damId: string;
  readonly sires: { readonly id: string; readonly weight: number }[];
  readonly clutches: (Pick<ClutchSummary, 'id' | 'name' | 'laidOn' | 'hatchedOn' | 'eggs' | 'hatched'> & {
    readonly young: string[];
  })[];
}

/** Pairings of a project's animals with one another, and those that were planned for it. */
export async function madePairings(work: Work, projectId: string): Promise<MadeRow[]> {
  const pairings = await select<Omit<MadeRow, 'clutches'>>(
    work,
    `select p.id, p.season, p.dam_id as "damId",
            json_agg(json_build_object('id', s.sire_id, 'weight', s.weight) order by s.weight desc, s.sire_id) as sires
       from pairings p join pairing_sires s on s.collection_id = p.collection_id and s.pairing_id = p.id
      where p.collection_id = :collectionId
      group by p.collection_id, p.id
     having bool_or(exists (
              select from planned_pairings n
               where n.collection_id = p.collection_id and n.project_id = :projectId and n.season = p.season
                 and n.dam_id = p.dam_id and n.sire_id = s.sire_id))
         or (exists (select from project_animals d
                      where d.collection_id = p.collection_id and d.project_id = :projectId and d.animal_id = p.dam_id)
             and bool_or(exists (
               select from project_animals m
                where m.collection_id = p.collection_id and m.project_id = :projectId and m.animal_id = s.sire_id)))
      order by p.season desc, p.started_on, p.id`,
    { projectId },
  );
  const clutches = await clutchesOf(
    work,
    pairings.map(({ id }) => id),
  );
  return pairings.map((pairing) => ({
    ...pairing,
    clutches: clutches.filter(({ pairingId }) => pairingId === pairing.id),
  }));
}

async function clutchesOf(
  work: Work,
  pairings: readonly string[],
): Promise<(MadeRow['clutches'][number] & { pairingId: string })[]> {
  if (pairings.length === 0) return [];
  const rows = await select<
    Omit<MadeRow['clutches'][number], 'name'> & { pairingId: string; season: number; ordinal: number }
  >(
    work,
    `select c.id, c.pairing_id as "pairingId", c.season, c.ordinal, c.laid_on as "laidOn", c.hatched_on as "hatchedOn",
            c.eggs, c.hatched,
            (select coalesce(json_agg(a.id order by a.number), '[]') from animals a
              where a.collection_id = c.collection_id and a.clutch_id = c.id) as young
       from clutches c where c.collection_id = :collectionId and c.pairing_id in (:pairings)
      order by c.laid_on, c.ordinal`,
    { pairings },
  );
  return rows.map(withClutchName);
}
