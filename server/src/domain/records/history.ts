import type {
  CareAct,
  CareRecord,
  FeedingRecord,
  History,
  LoanEndRecord,
  LoanRecord,
  MoveRecord,
  OwnWay,
  ShedRecord,
  StartPlan,
  WeightRecord,
} from '@karyotome/core';
import type { RecordRow } from '../../db/rows.ts';
import { isOfHealth, toHealthHistory } from '../health/health-history.ts';

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
  const loans: LoanRecord[] = [];
  const loanEnds: LoanEndRecord[] = [];
  const ofHealth = records.filter(({ kind }) => isOfHealth(kind));
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
    else if (kind === 'loan') {
      const { direction, partner, until } = raw as unknown as Omit<LoanRecord, 'id' | 'on'>;
      loans.push({ id, on, direction, partner, until });
    } else if (kind === 'loan-end') loanEnds.push({ id, on });
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
    ...(loans.length > 0 ? { loans: { loans, ends: loanEnds } } : {}),
    ...(ofHealth.length > 0 ? { health: toHealthHistory(ofHealth) } : {}),
  };
}

function withoutNull<T extends object>(values: T): T {
  return Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null)) as T;
}
