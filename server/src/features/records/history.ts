import {
  addDays,
  type FeedingRecord,
  type History,
  type MoveRecord,
  type ShedRecord,
  type StartPlan,
  type WeightRecord,
} from '@karyotome/core';
import type { RecordRow } from '../../db/rows.ts';
import { select, type Work } from '../../db/work.ts';

/** A valid record as husbandry reads it: which animal, what, when. */
export type ValidRecord = Pick<RecordRow, 'id' | 'animalId' | 'kind' | 'onDay' | 'body'>;

interface Body {
  massG: number;
  taken: boolean;
  stage: ShedRecord['stage'];
  complete?: boolean | null;
  eyeCaps?: boolean | null;
  fromTubId: string | null;
  toTubId: string | null;
  school: string;
  firstMealOn: string;
}

/** Sorts records, which come in date order, into the histories that core reasons from. */
export function toHistory(hatchedOn: string | null, records: readonly ValidRecord[]): History {
  const weights: WeightRecord[] = [];
  const feedings: FeedingRecord[] = [];
  const sheds: ShedRecord[] = [];
  const moves: MoveRecord[] = [];
  let plan: StartPlan | null = null;
  for (const { id, kind, onDay: on, body: raw } of records) {
    const body = raw as unknown as Body;
    if (kind === 'weight') weights.push({ id, on, massG: body.massG });
    else if (kind === 'feeding') feedings.push({ id, on, taken: body.taken });
    else if (kind === 'move') moves.push({ id, on, fromTub: body.fromTubId, toTub: body.toTubId });
    else if (kind === 'plan')
      plan = { firstMealOn: body.firstMealOn, withMice: body.school === 'small-mice' };
    else if (kind === 'shed') {
      sheds.push({
        id,
        on,
        stage: body.stage,
        ...(body.complete == null ? {} : { complete: body.complete }),
        ...(body.eyeCaps == null ? {} : { eyeCaps: body.eyeCaps }),
      });
    }
  }
  return { hatchedOn, weights, feedings, sheds, moves, ...(plan ? { plan } : {}) };
}

/** How far back the daily lists look: long enough for a winter's fast and several sheds. */
const LOOK_BACK_DAYS = 180;

type PackedRecord = [id: string, kind: ValidRecord['kind'], onDay: string, body: ValidRecord['body']];

/**
 * Recent records of every animal that is still here, in date order, by animal: what the daily lists need. Packed by the
 * database into one row an animal, which is several times faster to fetch than one row a record.
 */
export async function recentRecords(work: Work, days = LOOK_BACK_DAYS): Promise<Map<string, ValidRecord[]>> {
  const rows = await select<{ animalId: string; packed: PackedRecord[] }>(
    work,
    `select r.animal_id as "animalId",
            json_agg(json_build_array(r.id, r.kind, r.on_day,
              -- Of an identification only how sure it was: its tells and odds would weigh more than all the rest.
              case r.kind when 'identification' then jsonb_build_object('sure', r.body -> 'sure') else r.body end) order by r.on_day, r.recorded_at) as packed
       from records r
       join animals a on a.collection_id = r.collection_id and a.id = r.animal_id
      where r.collection_id = :collectionId and r.voided_at is null
        and r.kind in ('weight', 'feeding', 'shed', 'move', 'sex', 'plan', 'identification')
        and a.status not in ('sold', 'died')
        and (r.on_day >= :since or r.kind in ('sex', 'identification'))
      group by r.animal_id`,
    { since: addDays(work.today, -days) },
  );
  return new Map(
    rows.map(({ animalId, packed }) => [
      animalId,
      packed.map(([id, kind, onDay, body]) => ({ id, animalId, kind, onDay, body })),
    ]),
  );
}
