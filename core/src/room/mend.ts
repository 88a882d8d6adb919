import { simulateRoom, type RoomForecast, type RoomQuestion } from './simulate-room.ts';

/** A change that may mend a room which tips over, with what came of it when it was tried. */
export interface Mending {
  readonly key: string;
  readonly words: string;
  /** The question with the change made. */
  readonly changed: Pick<RoomQuestion, 'kinds' | 'salePace' | 'heldBack'>;
  /** The first week with more than one chance in ten to tip over, of any kind of tub; null: none. */
  readonly risky: number | null;
}

const TRIED_RUNS = 250;
const PACES = [0.12, 0.18, 0.25, 0.35, 0.5];
const EARLIER = 0.85;

const firstRisk = (forecast: RoomForecast): number | null => {
  const weeks = forecast.kinds.flatMap(({ risky }) => (risky === null ? [] : [risky]));
  return weeks.length === 0 ? null : Math.min(...weeks);
};

/** What would mend it: buying places, selling faster, holding fewer back, letting them up earlier, each tried by itself. */
export function mendings(question: RoomQuestion, forecast: RoomForecast): Mending[] {
  const before = firstRisk(forecast);
  if (before === null) return [];
  const tried = (key: string, words: string, change: Partial<Mending['changed']>): Mending => {
    const { kinds, salePace, heldBack } = { ...question, ...change };
    const result = simulateRoom({ ...question, kinds, salePace, heldBack, runs: TRIED_RUNS })!;
    return { key, words, changed: { kinds, salePace, heldBack }, risky: firstRisk(result) };
  };
  const better = ({ risky }: Mending): boolean => risky === null || risky > before;
  const missing = forecast.kinds.filter((kind) => kind.missing > 0);
  const buying =
    missing.length === 0
      ? []
      : [
          tried(
            'buy',
            `Buy ${missing.map((kind) => `${kind.missing} places of ${kind.name}`).join(' and ')}`,
            {
              kinds: question.kinds.map((kind) => {
                const more = missing.find(({ key }) => key === kind.key)?.missing ?? 0;
                return { ...kind, places: kind.places + more };
              }),
            },
          ),
        ];
  const paces = PACES.filter((pace) => pace > question.salePace).map((salePace) =>
    tried('sell', `Sell ${Math.round(salePace * 100)}% of those for sale in a week`, { salePace }),
  );
  // The gentlest pace that holds, or else the one that holds longest.
  const pace = paces.find(({ risky }) => risky === null) ?? paces.filter(better).at(-1);
  return [
    ...buying,
    ...(pace ? [pace] : []),
    ...(question.heldBack > 0
      ? [
          tried(
            'hold',
            `Hold back ${Math.round(question.heldBack * 50)}% instead of ${Math.round(question.heldBack * 100)}%`,
            {
              heldBack: question.heldBack / 2,
            },
          ),
        ]
      : []),
    tried('move', 'Let them up 15% earlier by weight', {
      kinds: question.kinds.map((kind) => ({
        ...kind,
        maxG: kind.maxG === null ? null : kind.maxG * EARLIER,
      })),
    }),
  ].filter(better);
}
