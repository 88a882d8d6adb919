import type { FemaleGroup, MaleGroup } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';
import { STANDING } from '../states/states.queries.ts';

/** An animal on the board, with what it is found and sorted by. */
export interface BoardEntry {
  readonly id: string;
  readonly number: string;
  readonly group: FemaleGroup | MaleGroup;
  readonly order: number;
  readonly massG: number | null;
}

/** The animals of a sex that are on the board, in no order, of those whose stored state stands. */
export function boardEntries(work: Work, sex: 'female' | 'male'): Promise<BoardEntry[]> {
  return select<BoardEntry>(
    work,
    `select s.animal_id as id, a.number, s.board as "group", s.board_order as "order", s.mass_g as "massG"
       from (select * from animal_states where ${STANDING} and sex = :sex and board is not null) s
       join animals a on a.collection_id = s.collection_id and a.id = s.animal_id`,
    { today: work.today, sex },
  );
}

/**
 * How many animals of each sex are in each group of the board.
 *
 * @param except - animals whose stored state does not stand
 */
export function countBoard(
  work: Work,
  except: readonly string[],
): Promise<{ sex: 'female' | 'male'; group: FemaleGroup | MaleGroup; count: number }[]> {
  return select<{ sex: 'female' | 'male'; group: FemaleGroup | MaleGroup; count: number }>(
    work,
    `select sex, board as "group", count(*)::int as count from animal_states
      where collection_id = :collectionId and day = :today and board is not null and animal_id not in (:except)
      group by sex, board`,
    { today: work.today, except },
  );
}

/** Weights of animals since a day, in order. */
export function weightsSince(
  work: Work,
  params: { readonly ids: readonly string[]; readonly since: string },
): Promise<{ animalId: string; on: string; massG: number }[]> {
  if (params.ids.length === 0) return Promise.resolve([]);
  return select<{ animalId: string; on: string; massG: number }>(
    work,
    `select animal_id as "animalId", on_day as "on", (body ->> 'massG')::double precision as "massG" from records
      where collection_id = :collectionId and animal_id in (:ids) and kind = 'weight' and voided_at is null
        and on_day >= :since order by on_day, recorded_at`,
    params,
  );
}
