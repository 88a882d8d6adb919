import { select, type Work } from '../../db/work.ts';

/** The day on which a pairing began. */
export function pairingStart(work: Work, params: { readonly id: string }): Promise<{ startedOn: string }[]> {
  return select<{ startedOn: string }>(
    work,
    `select started_on as "startedOn" from pairings where collection_id = :collectionId and id = :id`,
    params,
  );
}

/** The day of a clutch's first standing event. */
export function firstEggEvent(work: Work, params: { readonly id: string }): Promise<{ on: string }[]> {
  return select<{ on: string }>(
    work,
    `select min(on_day) as "on" from egg_events
        where collection_id = :collectionId and clutch_id = :id and voided_at is null`,
    params,
  );
}

/** Animals that came from these eggs. */
export function youngOfEggs(work: Work, params: { readonly eggs: string[] }): Promise<{ number: string }[]> {
  return select<{ number: string }>(
    work,
    `select number from animals where collection_id = :collectionId and egg_id in (:eggs)`,
    params,
  );
}
