import type { FactOf } from '../facts.ts';
import { simulateRoom, type RoomForecast, type RoomQuestion } from './simulate-room.ts';

/** What may be changed. Shares from 0 to 1. */
export interface RoomChanges {
  readonly 'buy-places': { readonly places: readonly { readonly kind: string; readonly count: number }[] };
  readonly 'sell-faster': { readonly perWeek: number };
  readonly 'hold-back-fewer': { readonly share: number; readonly before: number };
  readonly 'move-up-earlier': { readonly share: number };
}
export type RoomChange = FactOf<RoomChanges>;

/** A change that may mend a room which tips over, with what came of it when it was tried. */
export type Mending = RoomChange & {
  /** The question with the change made. */
  readonly changed: Pick<RoomQuestion, 'kinds' | 'salePace' | 'heldBack'>;
  /** The first week with more than one chance in ten to tip over, of any kind of tub; null: none. */
  readonly risky: number | null;
};

const TRIED_RUNS = 250;
const PACES = [0.12, 0.18, 0.25, 0.35, 0.5];
const EARLIER = 0.85;

const firstRisk = (forecast: RoomForecast): number | null => {
  const weeks = forecast.kinds.flatMap(({ risky }) => (risky === null ? [] : [risky]));
  return weeks.length === 0 ? null : Math.min(...weeks);
};

/**
 * What would mend it: buying places, selling faster, holding fewer back, letting them up earlier, each tried by itself.
 *
 * @example mendings({ kinds: [], animals: [], clutches: [], hatchlingKind: 'tub', hatchling: { mean: [], sd: [] }, saleAgeWeeks: 8, salePace: 0.2, heldBack: 0.1, weeks: 2, runs: 10, seed: 1 }, simulateRoom({ kinds: [], animals: [], clutches: [], hatchlingKind: 'tub', hatchling: { mean: [], sd: [] }, saleAgeWeeks: 8, salePace: 0.2, heldBack: 0.1, weeks: 2, runs: 10, seed: 1 })) // []
 */
export function mendings(question: RoomQuestion, forecast: RoomForecast): Mending[] {
  const before = firstRisk(forecast);
  if (before === null) return [];
  const tried = (fact: RoomChange, change: Partial<Mending['changed']>): Mending => {
    const { kinds, salePace, heldBack } = { ...question, ...change };
    const result = simulateRoom({ ...question, kinds, salePace, heldBack, runs: TRIED_RUNS })!;
    return { ...fact, changed: { kinds, salePace, heldBack }, risky: firstRisk(result) };
  };
  const better = ({ risky }: Mending): boolean => risky === null || risky > before;
  const missing = forecast.kinds.filter((kind) => kind.missing > 0);
  const buying =
    missing.length === 0
      ? []
      : [
          tried(
            {
              code: 'buy-places',
              facts: { places: missing.map(({ name, missing }) => ({ kind: name, count: missing })) },
            },
            {
              kinds: question.kinds.map((kind) => {
                const more = missing.find(({ key }) => key === kind.key)?.missing ?? 0;
                return { ...kind, places: kind.places + more };
              }),
            },
          ),
        ];
  const paces = PACES.filter((pace) => pace > question.salePace).map((salePace) =>
    tried({ code: 'sell-faster', facts: { perWeek: salePace } }, { salePace }),
  );
  // The gentlest pace that holds, or else the one that holds longest.
  const pace = paces.find(({ risky }) => risky === null) ?? paces.filter(better).at(-1);
  return [
    ...buying,
    ...(pace ? [pace] : []),
    ...(question.heldBack > 0
      ? [
          tried(
            {
              code: 'hold-back-fewer',
              facts: { share: question.heldBack / 2, before: question.heldBack },
            },
            {
              heldBack: question.heldBack / 2,
            },
          ),
        ]
      : []),
    tried(
      { code: 'move-up-earlier', facts: { share: 1 - EARLIER } },
      {
        kinds: question.kinds.map((kind) => ({
          ...kind,
          maxG: kind.maxG === null ? null : kind.maxG * EARLIER,
        })),
      },
    ),
  ].filter(better);
}
