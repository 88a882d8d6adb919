import type { LadderStepInput, TubPlace } from '@karyotome/contract';
import { adviseMove, type History, type MoveAdvice, type TubKind } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { ladderSteps, type PlacedTub, placedTubs } from './enclosures.queries.ts';

export interface Enclosures {
  /** Ladder id -> its name and steps in order, and a stamp that changes with them. */
  readonly ladders: ReadonlyMap<string, { name: string; steps: LadderStepInput[]; stamp: string }>;
  /** Tub id -> the step of the ladder its rack stands for. */
  readonly tubs: ReadonlyMap<string, PlacedTub>;
  /** The free ones, in walking order. */
  readonly free: readonly PlacedTub[];
}

export async function loadEnclosures(work: Work): Promise<Enclosures> {
  const steps = await ladderSteps(work);
  const ladders = new Map<string, { name: string; steps: LadderStepInput[]; stamp: string }>();
  for (const { ladderId, ladder, ...step } of steps) {
    const all = [...(ladders.get(ladderId)?.steps ?? []), step];
    ladders.set(ladderId, { name: ladder, steps: all, stamp: ladderId + JSON.stringify(all) });
  }
  const tubs = await placedTubs(work);
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
