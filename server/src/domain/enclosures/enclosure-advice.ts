import type { LadderStepInput, TubPlace } from '@karyotome/contract';
import { adviseMove, type History, type MoveAdvice, type TubKind } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';

export interface Enclosures {
  /** Ladder id -> its name and steps in order, and a stamp that changes with them. */
  readonly ladders: ReadonlyMap<string, { name: string; steps: LadderStepInput[]; stamp: string }>;
  /** Tub id -> the step of the ladder its rack stands for. */
  readonly tubs: ReadonlyMap<string, PlacedTub>;
  /** The free ones, in walking order. */
  readonly free: readonly PlacedTub[];
}
type PlacedTub = TubPlace & { rackId: string; ladderId: string; step: number; free: boolean };

export async function loadEnclosures(work: Work): Promise<Enclosures> {
  const steps = await select<LadderStepInput & { ladderId: string; ladder: string }>(
    work,
    `select s.ladder_id as "ladderId", l.name as ladder, s.name, s.min_g as "minG", s.max_g as "maxG", s.inside,
            s.meals_before as "mealsBefore"
       from ladder_steps s join ladders l on l.collection_id = s.collection_id and l.id = s.ladder_id
      where s.collection_id = :collectionId order by s.ladder_id, s.position`,
  );
  const ladders = new Map<string, { name: string; steps: LadderStepInput[]; stamp: string }>();
  for (const { ladderId, ladder, ...step } of steps) {
    const all = [...(ladders.get(ladderId)?.steps ?? []), step];
    ladders.set(ladderId, { name: ladder, steps: all, stamp: ladderId + JSON.stringify(all) });
  }
  const tubs = await select<PlacedTub>(
    work,
    `select t.id as "tubId", t.rack_id as "rackId", k.room, k.name as rack, t.level, t.slot, k.ladder_id as "ladderId",
            k.step_position as step,
            not exists (select 1 from animals a where a.collection_id = t.collection_id and a.tub_id = t.id) as free
       from tubs t join racks k on k.collection_id = t.collection_id and k.id = t.rack_id
      where t.collection_id = :collectionId order by k.room, k.name, t.level, t.slot`,
  );
  return {
    ladders,
    tubs: new Map(tubs.map((tub) => [tub.tubId, tub])),
    free: tubs.filter(({ free }) => free),
  };
}

export interface PlacedAdvice extends MoveAdvice {
  ladder: string | null;
  from: string | null;
  to: string | null;
  freeTubs: TubPlace[];
}

const FREE_TUBS_SHOWN = 12;
const NO_ADVICE: PlacedAdvice = {
  verdict: 'none',
  toStep: null,
  reasons: [],
  ladder: null,
  from: null,
  to: null,
  freeTubs: [],
};

/** All of the room that advice for an animal turns on, besides which tubs are free. */
export function adviceKey(enclosures: Enclosures, tubId: string | null, history: History): string {
  const tub = tubId === null ? undefined : enclosures.tubs.get(tubId);
  if (!tub) return '';
  const from = history.moves.at(-1)?.fromTub;
  const last = from ? enclosures.tubs.get(from) : undefined;
  return `${tub.step}|${last?.ladderId}|${last?.step}|${enclosures.ladders.get(tub.ladderId)?.stamp}`;
}

/** Advice for an animal in its tub; null where it has none. */
export function adviseFor(
  enclosures: Enclosures,
  tubId: string | null,
  history: History,
  today: string,
  gravid: boolean,
): MoveAdvice | null {
  const tub = tubId === null ? undefined : enclosures.tubs.get(tubId);
  const ladder = tub && enclosures.ladders.get(tub.ladderId);
  if (!tub || !ladder) return null;
  const steps = ladder.steps.map(({ mealsBefore, ...step }) =>
    mealsBefore == null ? step : { ...step, mealsBefore },
  );
  const stepOf = (id: string): number | null => {
    const other = enclosures.tubs.get(id);
    return other?.ladderId === tub.ladderId ? other.step : null;
  };
  return adviseMove(steps, tub.step, history, today, { gravid, stepOf });
}

/** Advice with the kinds of tub by name, and the free places it leads to. */
export function placeAdvice(
  enclosures: Enclosures,
  tubId: string | null,
  history: History,
  advice: MoveAdvice | null,
): PlacedAdvice {
  const tub = tubId === null ? undefined : enclosures.tubs.get(tubId);
  const ladder = tub && enclosures.ladders.get(tub.ladderId);
  if (!tub || !ladder || !advice) return NO_ADVICE;
  const from = ladder.steps[tub.step]?.name ?? null;
  if (advice.verdict === 'none') return { ...NO_ADVICE, ladder: ladder.name, from };
  const last = history.moves.at(-1)?.fromTub;
  const { free } = enclosures;
  const wanted =
    advice.verdict === 'go-back'
      ? free
          .toSorted((a, b) => Number(b.tubId === last) - Number(a.tubId === last))
          .filter((candidate) => candidate.step < tub.step)
      : free.filter((candidate) => candidate.ladderId === tub.ladderId && candidate.step === advice.toStep);
  return {
    ...advice,
    ladder: ladder.name,
    from,
    to: advice.toStep === null ? null : (ladder.steps[advice.toStep]?.name ?? null),
    freeTubs: wanted
      .slice(0, FREE_TUBS_SHOWN)
      .map(({ tubId: id, room, rack, level, slot }) => ({ tubId: id, room, rack, level, slot })),
  };
}

/** What kind of tub each one is, in words and by its step. */
export function kindOfTub(enclosures: Enclosures): (tubId: string) => TubKind | undefined {
  return (tubId) => {
    const tub = enclosures.tubs.get(tubId);
    const step = tub && enclosures.ladders.get(tub.ladderId)?.steps[tub.step];
    return step && { name: step.name, ladderId: tub.ladderId, step: tub.step, minG: step.minG };
  };
}
