import type {
  CareAct,
  CareRecord,
  FeedingRecord,
  History,
  MoveRecord,
  OwnWay,
  ShedRecord,
  StartPlan,
  WeightRecord,
} from '@karyotome/core';
import type { RecordRow } from '../../db/rows.ts';
import { select, type Work } from '../../db/work.ts';

/** A valid record as husbandry reads it: which animal, what, when. */
export type ValidRecord = Pick<RecordRow, 'id' | 'animalId' | 'kind' | 'onDay' | 'body'>;

interface Body {
  massG: number;
  taken: boolean;
  species: string;
  size: string;
  state: string;
  step?: string | null;
  light?: string | null;
  stage: ShedRecord['stage'];
  complete?: boolean | null;
  eyeCaps?: boolean | null;
  fromTubId: string | null;
  toTubId: string | null;
  substrate?: string | null;
  protocol: string;
  firstMealOn: string;
  act: CareAct;
}

/** Sorts records, which come in date order, into the histories that core reasons from. */
export function toHistory(hatchedOn: string | null, records: readonly ValidRecord[]): History {
  const weights: WeightRecord[] = [];
  const feedings: FeedingRecord[] = [];
  const sheds: ShedRecord[] = [];
  const moves: MoveRecord[] = [];
  const care: CareRecord[] = [];
  let plan: StartPlan | null = null;
  let own: OwnWay | null = null;
  for (const { id, kind, onDay: on, body: raw } of records) {
    const body = raw as unknown as Body;
    if (kind === 'weight') weights.push({ id, on, massG: body.massG });
    else if (kind === 'feeding') {
      const { taken, species, size, state, step, light } = body;
      feedings.push({
        id,
        on,
        taken,
        species,
        size,
        state,
        ...(step ? { step } : {}),
        ...(light ? { light } : {}),
      });
    } else if (kind === 'move') {
      const { fromTubId: fromTub, toTubId: toTub, substrate } = body;
      moves.push({ id, on, fromTub, toTub, ...(substrate ? { substrate } : {}) });
    } else if (kind === 'plan') plan = { firstMealOn: body.firstMealOn, planId: body.protocol };
    else if (kind === 'care') care.push({ id, on, act: body.act });
    else if (kind === 'own-way') own = withoutNull(raw as OwnWay);
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
  return {
    hatchedOn,
    weights,
    feedings,
    sheds,
    moves,
    care,
    ...(plan ? { plan } : {}),
    ...(own ? { own } : {}),
  };
}

function withoutNull<T extends object>(values: T): T {
  return Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)) as T;
}

type PackedRecord = [id: string, kind: ValidRecord['kind'], onDay: string, body: ValidRecord['body']];

/**
 * The valid records of animals, in date order, by animal: what husbandry reads. Packed by the database into one row an
 * animal, which is several times faster to fetch than one row a record.
 */
export async function husbandryRecords(
  work: Work,
  animalIds: readonly string[],
): Promise<Map<string, ValidRecord[]>> {
  if (animalIds.length === 0) return new Map();
  const rows = await select<{ animalId: string; packed: PackedRecord[] }>(
    work,
    `select r.animal_id as "animalId",
            json_agg(json_build_array(r.id, r.kind, r.on_day,
              -- Of an identification only how sure it was: its markers and odds would weigh more than all the rest.
              case r.kind when 'identification' then jsonb_build_object('sure', r.body -> 'sure') else r.body end) order by r.on_day, r.recorded_at) as packed
       from records r
      where r.collection_id = :collectionId and r.voided_at is null and r.animal_id in (:animalIds)
        and r.kind in ('weight', 'feeding', 'shed', 'move', 'sex', 'plan', 'care', 'own-way', 'identification')
      group by r.animal_id`,
    { animalIds },
  );
  return new Map(
    rows.map(({ animalId, packed }) => [
      animalId,
      packed.map(([id, kind, onDay, body]) => ({ id, animalId, kind, onDay, body })),
    ]),
  );
}
