import type { HeatZoneView, LadderStepInput, RackSummary, TubPlace, TubView } from '@karyotome/contract';
import { oncePerRead } from '../../db/once-per-read.ts';
import { select, type Work } from '../../db/work.ts';
import { livingSql } from '../animals/living-sql.ts';

/** SQL: joins `t` and `k`, the tub and the rack of the animal `a`, where it has one. */
export const HOUSING = `left join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
       left join racks k on k.collection_id = t.collection_id and k.id = t.rack_id`;

/** SQL: sorts the racks `k` as they are walked past. */
export const RACKS_AS_WALKED = 'k.walk_order, k.room, k.name';

export type ZoneRow = Omit<HeatZoneView, 'faults' | 'dueOn'>;

/** Heat zones with their last surface check. */
export function zoneRows(work: Work): Promise<ZoneRow[]> {
  return select<ZoneRow>(
    work,
    `select z.id, z.rack_id as "rackId", z.name, z.warm_c as "warmC", z.cool_c as "coolC", z.thermostat,
            z.every_days as "everyDays", z.version, last.body as "lastCheck"
       from heat_zones z
       left join lateral (
         select json_build_object('id', c.id, 'on', c.on_day, 'warmC', c.warm_c, 'coolC', c.cool_c,
                  'probeFixed', c.probe_fixed, 'note', c.note, 'author', a.name) as body
           from surface_checks c join accounts a on a.id = c.author_id
          where c.collection_id = z.collection_id and c.zone_id = z.id and c.voided_at is null
          order by c.on_day desc, c.recorded_at desc limit 1) last on true
      where z.collection_id = :collectionId order by z.name`,
  );
}

/** Ladders and how many racks stand on each. */
export function ladderRows(
  work: Work,
): Promise<{ id: string; name: string; version: number; racks: number }[]> {
  return select<{ id: string; name: string; version: number; racks: number }>(
    work,
    `select l.id, l.name, l.version,
            (select count(*)::int from racks r where r.collection_id = l.collection_id and r.ladder_id = l.id) as racks
       from ladders l where l.collection_id = :collectionId order by l.name`,
  );
}

/** The highest step of a ladder that a rack stands on. */
export function highestStepInUse(
  work: Work,
  params: { readonly id: string },
): Promise<{ position: number | null }[]> {
  return select<{ position: number | null }>(
    work,
    'select max(step_position)::int as position from racks where collection_id = :collectionId and ladder_id = :id',
    params,
  );
}

export function countAnimalsInRack(
  work: Work,
  params: { readonly id: string },
): Promise<{ count: number }[]> {
  return select<{ count: number }>(
    work,
    `select count(*)::int as count from animals a join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
      where a.collection_id = :collectionId and t.rack_id = :id`,
    params,
  );
}

/** Animals in tubs that a smaller rack would not have. */
export function animalsBeyond(
  work: Work,
  params: { readonly id: string; readonly levels: number; readonly tubsPerLevel: number },
): Promise<{ number: string; level: number; slot: number }[]> {
  return select<{ number: string; level: number; slot: number }>(
    work,
    `select a.number, t.level, t.slot from tubs t join animals a on a.collection_id = t.collection_id and a.tub_id = t.id
      where t.collection_id = :collectionId and t.rack_id = :id and (t.level > :levels or t.slot > :tubsPerLevel)
      order by t.level, t.slot`,
    params,
  );
}

export type PlacedTub = TubPlace & { rackId: string; ladderId: string; step: number };

/** All steps of all ladders, in order. */
export function ladderSteps(work: Work): Promise<(LadderStepInput & { ladderId: string; ladder: string })[]> {
  return oncePerRead(work, 'ladder-steps', () =>
    select<LadderStepInput & { ladderId: string; ladder: string }>(
      work,
      `select s.ladder_id as "ladderId", l.name as ladder, s.name, s.min_g as "minG", s.max_g as "maxG", s.inside,
              s.meals_before as "mealsBefore"
         from ladder_steps s join ladders l on l.collection_id = s.collection_id and l.id = s.ladder_id
        where s.collection_id = :collectionId order by s.ladder_id, s.position`,
    ),
  );
}

const PLACED_SQL = `
  select t.id as "tubId", t.rack_id as "rackId", k.room, k.name as rack, t.level, t.slot, k.ladder_id as "ladderId",
         k.step_position as step
    from tubs t join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
   where t.collection_id = :collectionId`;
const IN_WALKING_ORDER = `order by ${RACKS_AS_WALKED}, t.level, t.slot`;

/** Tubs with where they stand, in walking order. @param ids - these alone */
export function placedTubs(work: Work, ids: readonly string[] | null = null): Promise<PlacedTub[]> {
  const these = ids === null ? '' : 'and t.id in (:ids)';
  return select<PlacedTub>(work, `${PLACED_SQL} ${these} ${IN_WALKING_ORDER}`, { ids });
}

/** The tubs that nobody lives in. */
export function freeTubs(work: Work): Promise<PlacedTub[]> {
  return select<PlacedTub>(
    work,
    `${PLACED_SQL} and not exists (
       select 1 from animals a where a.collection_id = t.collection_id and a.tub_id = t.id) ${IN_WALKING_ORDER}`,
  );
}

/** The kind of tub that an animal lives in. */
export interface Home {
  readonly animalId: string;
  readonly ladderId: string;
  readonly step: number;
}

export function homesOf(work: Work, ids: readonly string[]): Promise<Home[]> {
  return select<Home>(
    work,
    `select a.id as "animalId", k.ladder_id as "ladderId", k.step_position as step
       from animals a join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
       join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
      where a.collection_id = :collectionId and a.id in (:ids)`,
    { ids },
  );
}

/** Racks by name. */
export function namedRacks(work: Work): Promise<{ id: string; room: string; name: string }[]> {
  return select<{ id: string; room: string; name: string }>(
    work,
    'select id, room, name from racks where collection_id = :collectionId order by name',
  );
}

/** Racks with the step they stand for, in walking order, and how full they are. @param id - this one alone */
export function rackRows(work: Work, id: string | null = null): Promise<Omit<RackSummary, 'zones'>[]> {
  return select<Omit<RackSummary, 'zones'>>(
    work,
    `select k.id, k.room, k.name, k.levels, k.tubs_per_level as "tubsPerLevel", k.ladder_id as "ladderId",
            k.step_position as "stepPosition", k.version,
            json_build_object('name', s.name, 'minG', s.min_g, 'maxG', s.max_g, 'inside', s.inside,
              'mealsBefore', s.meals_before) as step,
            count(a.id)::int as animals, count(t.id) filter (where a.id is null)::int as free
       from racks k
       join ladder_steps s
         on s.collection_id = k.collection_id and s.ladder_id = k.ladder_id and s.position = k.step_position
       left join tubs t on t.collection_id = k.collection_id and t.rack_id = k.id
       left join animals a on a.collection_id = t.collection_id and a.tub_id = t.id
      where k.collection_id = :collectionId ${id === null ? '' : 'and k.id = :id'}
      group by k.collection_id, k.id, s.collection_id, s.ladder_id, s.position
      order by ${RACKS_AS_WALKED}`,
    { id },
  );
}

/** The tubs of a rack, and who lives in each. */
export function tubsOfRack(
  work: Work,
  params: { readonly id: string },
): Promise<{ id: string; level: number; slot: number; animals: string[] }[]> {
  return select<{ id: string; level: number; slot: number; animals: string[] }>(
    work,
    `select t.id, t.level, t.slot,
            (select coalesce(json_agg(a.id order by a.number), '[]') from animals a
              where a.collection_id = t.collection_id and a.tub_id = t.id and ${livingSql('a.status')}) as animals
       from tubs t where t.collection_id = :collectionId and t.rack_id = :id order by t.level, t.slot`,
    params,
  );
}

/** All tubs with their kind and who lives in each, in walking order. */
export function allTubs(work: Work): Promise<TubView[]> {
  return select<TubView>(
    work,
    `select t.id as "tubId", k.room, k.name as rack, t.level, t.slot, s.name as kind, count(a.id) = 0 as "isFree",
            coalesce(json_agg(a.number order by a.number) filter (where a.id is not null), '[]') as animals
       from tubs t
       join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
       join ladder_steps s
         on s.collection_id = k.collection_id and s.ladder_id = k.ladder_id and s.position = k.step_position
       left join animals a on a.collection_id = t.collection_id and a.tub_id = t.id
      where t.collection_id = :collectionId
      group by t.id, k.walk_order, k.room, k.name, t.level, t.slot, s.name ${IN_WALKING_ORDER}`,
  );
}
