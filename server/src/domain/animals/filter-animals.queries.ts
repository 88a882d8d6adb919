import { clutchName, seasonOf, type FilteredAnimal, type SeasonRules } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { HOUSING } from '../enclosures/enclosures.queries.ts';
import type { StoredState } from '../states/compute-state.ts';
import { stateFactsOf, type StateFacts } from './filtered-state.ts';
import { LAST_WEIGHT } from './last-weight-sql.ts';

type Row = Omit<FilteredAnimal, keyof StateFacts | 'clutch' | 'seasons'> & {
  readonly id: string;
  readonly bredOn: readonly string[];
  readonly season: number | null;
  readonly ordinal: number | null;
  /** Null where it is not asked for, or has to be computed first. */
  readonly state: Pick<StoredState, 'appetite' | 'shed' | 'flags' | 'health'> | null;
};

/** SQL: `bred` has the days on which something of an animal's breeding was seen: a pairing may go on into the next season. */
const BRED = `with bred as (
  select id, array_agg(distinct on_day::text) as days from (
    select p.dam_id as id, e.on_day from pairing_events e
      join pairings p on p.collection_id = e.collection_id and p.id = e.pairing_id
     where e.collection_id = :collectionId and e.voided_at is null
    union all
    select e.sire_id, e.on_day from pairing_events e
     where e.collection_id = :collectionId and e.voided_at is null and e.sire_id is not null
    union all
    select p.dam_id, l.laid_on from clutches l
      join pairings p on p.collection_id = l.collection_id and p.id = l.pairing_id
     where l.collection_id = :collectionId
    union all
    select m.sire_id, l.laid_on from clutches l
      join pairing_sires m on m.collection_id = l.collection_id and m.pairing_id = l.pairing_id
     where l.collection_id = :collectionId) seen
   group by id)`;

const NO_STATE: StateFacts = {
  ateOn: null,
  refusedInARow: 0,
  isInShed: false,
  isGravid: false,
  isInQuarantine: false,
  isTreated: false,
  showsSigns: false,
};

/**
 * All animals, as a filter reads them.
 *
 * @param withState - also what husbandry computed of them, where it is stored
 */
export async function filteredAnimals(
  work: Work,
  withState: boolean,
  seasonRules: SeasonRules,
): Promise<(FilteredAnimal & { readonly id: string })[]> {
  const rows = await select<Row>(
    work,
    `${BRED}
     select a.id, a.sex, a.status, a.hatched_on as "hatchedOn", w.mass_g as "massG", w.on_day as "weighedOn",
            k.room, k.name as rack, c.season, c.ordinal,
            coalesce(b.days, '{}') as "bredOn",
            exists (select from publications u where u.collection_id = a.collection_id and u.animal_id = a.id
                       and u.withdrawn_at is null) as "isPublished",
            ${
              withState
                ? `case when s.computed_for = s.changes then json_build_object('appetite', s.facts -> 'appetite',
                     'shed', s.facts -> 'shed', 'flags', s.facts -> 'flags', 'health', s.facts -> 'health') end`
                : 'null'
            } as state
       from animals a ${HOUSING} ${LAST_WEIGHT}
       left join bred b on b.id = a.id
       left join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
       ${withState ? 'left join animal_states s on s.collection_id = a.collection_id and s.animal_id = a.id and s.day = :today' : ''}
      where a.collection_id = :collectionId`,
    { today: work.today },
  );
  return rows.map(({ state, season, ordinal, bredOn, ...row }) => ({
    ...row,
    seasons: [...new Set(bredOn.map((day) => seasonOf(day, seasonRules)))],
    clutch: season === null || ordinal === null ? null : clutchName(season, ordinal),
    ...(state === null ? NO_STATE : stateFactsOf(state)),
  }));
}
