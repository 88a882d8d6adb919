import { clutchName, type FilteredAnimal } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { HOUSING } from '../enclosures/enclosures.queries.ts';
import type { StoredState } from '../states/compute-state.ts';
import { stateFactsOf, type StateFacts } from './filtered-state.ts';
import { LAST_WEIGHT } from './last-weight-sql.ts';

type Row = Omit<FilteredAnimal, keyof StateFacts | 'clutch'> & {
  readonly id: string;
  readonly season: number | null;
  readonly ordinal: number | null;
  /** Null where it is not asked for, or has to be computed first. */
  readonly state: Pick<StoredState, 'appetite' | 'shed' | 'flags' | 'health'> | null;
};

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
): Promise<(FilteredAnimal & { readonly id: string })[]> {
  const rows = await select<Row>(
    work,
    `select a.id, a.sex, a.status, a.hatched_on as "hatchedOn", w.mass_g as "massG", w.on_day as "weighedOn",
            k.room, k.name as rack, c.season, c.ordinal,
            array(select distinct p.season from pairings p
                   where p.collection_id = a.collection_id and (p.dam_id = a.id or exists (
                     select from pairing_sires m
                      where m.collection_id = p.collection_id and m.pairing_id = p.id and m.sire_id = a.id))) as seasons,
            exists (select from publications u where u.collection_id = a.collection_id and u.animal_id = a.id
                       and u.withdrawn_at is null) as "isPublished",
            ${
              withState
                ? `case when s.computed_for = s.changes then json_build_object('appetite', s.facts -> 'appetite',
                     'shed', s.facts -> 'shed', 'flags', s.facts -> 'flags', 'health', s.facts -> 'health') end`
                : 'null'
            } as state
       from animals a ${HOUSING} ${LAST_WEIGHT}
       left join clutches c on c.collection_id = a.collection_id and c.id = a.clutch_id
       ${withState ? 'left join animal_states s on s.collection_id = a.collection_id and s.animal_id = a.id and s.day = :today' : ''}
      where a.collection_id = :collectionId`,
    { today: work.today },
  );
  return rows.map(({ state, season, ordinal, ...row }) => ({
    ...row,
    clutch: season === null || ordinal === null ? null : clutchName(season, ordinal),
    ...(state === null ? NO_STATE : stateFactsOf(state)),
  }));
}
