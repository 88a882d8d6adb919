import type { TubPlace } from '@karyotome/contract';
import type { AnimalState, MoveAdvice } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { freeTubs, homesOf, ladderSteps, type Home, type PlacedTub } from './enclosures.queries.ts';

/** Advice with the kinds of tub by name, and the free places it leads to. */
export interface PlacedAdvice extends MoveAdvice {
  ladder: string | null;
  from: string | null;
  to: string | null;
  freeTubs: TubPlace[];
}

/** What advice is placed by. */
export interface AdvicePlaces {
  /** Where each animal lives; none of one without a tub. */
  readonly homes: ReadonlyMap<string, Home>;
  /** Ladder id -> its name, and the names of its steps. */
  readonly ladders: ReadonlyMap<string, { readonly name: string; readonly steps: readonly string[] }>;
  /** Tubs that nobody lives in, in walking order. */
  readonly free: readonly PlacedTub[];
}

type Advised = Pick<AnimalState, 'advice' | 'movedFrom'>;

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

/** What the advice for animals is placed by. Free tubs are looked for only where some advice leads to one. */
export async function placesOf(
  work: Work,
  ids: readonly string[],
  states: ReadonlyMap<string, Advised>,
): Promise<AdvicePlaces> {
  if (ids.length === 0) return { homes: new Map(), ladders: new Map(), free: [] };
  const leads = ids.some((id) => (states.get(id)?.advice.verdict ?? 'none') !== 'none');
  const [steps, homes, free] = await Promise.all([
    ladderSteps(work),
    homesOf(work, ids),
    leads ? freeTubs(work) : [],
  ]);
  const ladders = new Map<string, { name: string; steps: string[] }>();
  for (const { ladderId, ladder, name } of steps)
    ladders.set(ladderId, { name: ladder, steps: [...(ladders.get(ladderId)?.steps ?? []), name] });
  return { homes: new Map(homes.map((home) => [home.animalId, home])), ladders, free };
}

/** An animal's advice in its place. */
export function placeAdvice(
  { homes, ladders, free }: AdvicePlaces,
  id: string,
  { advice, movedFrom }: Advised,
): PlacedAdvice {
  const home = homes.get(id);
  const ladder = home && ladders.get(home.ladderId);
  if (!home || !ladder) return NO_ADVICE;
  const from = ladder.steps[home.step] ?? null;
  if (advice.verdict === 'none') return { ...NO_ADVICE, ladder: ladder.name, from };
  const wanted =
    advice.verdict === 'go-back'
      ? free
          .toSorted((a, b) => Number(b.tubId === movedFrom) - Number(a.tubId === movedFrom))
          .filter(({ step }) => step < home.step)
      : free.filter(({ ladderId, step }) => ladderId === home.ladderId && step === advice.toStep);
  return {
    ...advice,
    ladder: ladder.name,
    from,
    to: advice.toStep === null ? null : (ladder.steps[advice.toStep] ?? null),
    freeTubs: wanted
      .slice(0, FREE_TUBS_SHOWN)
      .map(({ tubId, room, rack, level, slot }) => ({ tubId, room, rack, level, slot })),
  };
}
