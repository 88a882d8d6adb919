import { addDays, YOLK_DAYS, type IsoDay } from '@karyotome/core';
import {
  cuttingWords,
  EGG_CHECK,
  EXPECTED_WORDS,
  NEVER_PULL,
  preyWords,
  taskWords,
  waitWords,
  type Reader,
} from '@karyotome/words';
import type { Work } from '../../db/work.ts';
import { incubationClocks } from '../../domain/incubation/clutch-view.service.ts';
import { openForecasts } from '../../domain/season/forecasts.ts';
import { unstoredStates } from '../../domain/states/animal-states.ts';
import { viewToday } from '../../domain/today/today.service.ts';
import { storedOutlooks, type Outlook } from './due-days.queries.ts';

/** Something due on a day or within a span of days. */
export interface DueDay {
  /** The same thing keeps its id, so that a calendar moves it instead of showing it twice. */
  readonly id: string;
  readonly from: IsoDay;
  /** The last day. */
  readonly to: IsoDay;
  readonly title: string;
  readonly text: string;
}

/** How far ahead meals and weighings are foreseen. */
const AHEAD_DAYS = 21;

/** Everything due, today and ahead: the season's dates as spans, the daily work gathered by day. */
export async function dueDays(work: Work, reader: Reader): Promise<DueDay[]> {
  return [
    ...(await seasonDays(work, reader)),
    ...(await clutchDays(work)),
    ...(await todaysWork(work, reader)),
    ...(await animalDays(work, reader)),
  ];
}

async function seasonDays(work: Work, reader: Reader): Promise<DueDay[]> {
  return (await openForecasts(work)).flatMap(({ pairingId, dam, forecast }) =>
    forecast.expected.map((expected) => ({
      id: `${pairingId}-${expected.what}`,
      from: expected.from,
      to: expected.to,
      title: `${dam}: ${EXPECTED_WORDS[expected.what]} expected`,
      text: `Eight in ten fall between ${reader.day(expected.from)} and ${reader.day(expected.to)}, the middle is ${reader.day(expected.middle)}. ${waitWords(expected)}.`,
    })),
  );
}

async function clutchDays(work: Work): Promise<DueDay[]> {
  return (await incubationClocks(work)).flatMap(({ id, name, clock }) => {
    const checks = clock.milestones
      .filter((milestone) => milestone.what === 'egg-check' && !milestone.done && milestone.on >= work.today)
      .map(({ day, on }) => ({
        id: `${id}-check-${day}`,
        from: on,
        to: on,
        title: `Clutch ${name}: check the eggs, day ${day}`,
        text: EGG_CHECK,
      }));
    const pip = clock.pip
      ? [
          {
            id: `${id}-pip`,
            from: clock.pip.from,
            to: clock.pip.to,
            title: `Clutch ${name}: first pip expected`,
            text: `${waitWords(clock.pip)}. ${NEVER_PULL}`,
          },
        ]
      : [];
    const cut =
      clock.cutOn !== null && clock.cutOn >= work.today
        ? [
            {
              id: `${id}-cut`,
              from: clock.cutOn,
              to: clock.cutOn,
              title: `Clutch ${name}: day of cutting`,
              text: cuttingWords(clock.cutting),
            },
          ]
        : [];
    const out =
      clock.out.to >= work.today
        ? [
            {
              id: `${id}-out`,
              from: clock.out.from,
              to: clock.out.to,
              title: `Clutch ${name}: first young expected out of the egg`,
              text: `${YOLK_DAYS.from} to ${YOLK_DAYS.to} days after the pip, while it absorbs its yolk.`,
            },
          ]
        : [];
    return [...checks, ...pip, ...cut, ...out];
  });
}

async function todaysWork(work: Work, reader: Reader): Promise<DueDay[]> {
  const { today, lines } = await viewToday(work);
  if (lines.length === 0) return [];
  const name = (line: (typeof lines)[number]): string =>
    line.animal?.number ??
    (line.clutch ? `Clutch ${line.clutch.name}` : (line.incubator?.name ?? line.room?.name ?? ''));
  return [
    {
      id: `today-${today}`,
      from: today,
      to: today,
      title: reader.count(lines.length, 'task', 'tasks'),
      text: lines.map((line) => `${name(line)}: ${taskWords(line, reader).text}`).join('\n'),
    },
  ];
}

/** When each animal eats and is weighed next, by number. */
async function outlooks(work: Work): Promise<Outlook[]> {
  const unstored = await unstoredStates(work);
  const fresh = new Map(unstored.map(({ id, state }) => [id, state]));
  return (await storedOutlooks(work)).map(({ id, ...stored }) => ({ ...stored, ...fresh.get(id) }));
}

/** Meals and weighings of the next weeks, one entry a day. */
async function animalDays(work: Work, reader: Reader): Promise<DueDay[]> {
  const last = addDays(work.today, AHEAD_DAYS);
  const days = new Map<string, { meals: string[]; weighings: string[] }>();
  const on = (day: IsoDay) => {
    const known = days.get(day) ?? { meals: [], weighings: [] };
    days.set(day, known);
    return known;
  };
  // What is overdue is in today's entry.
  const isAhead = (day: IsoDay | null | undefined): day is IsoDay =>
    day !== null && day !== undefined && day > work.today && day <= last;
  for (const { number, meal, nextWeighingOn } of await outlooks(work)) {
    if (isAhead(meal?.dueOn)) on(meal!.dueOn).meals.push(`${number}: ${preyWords(meal!, reader)}`);
    if (isAhead(nextWeighingOn)) on(nextWeighingOn).weighings.push(number);
  }
  return [...days].flatMap(([day, { meals, weighings }]) => [
    ...(meals.length > 0
      ? [
          {
            id: `meals-${day}`,
            from: day,
            to: day,
            title: reader.count(meals.length, 'meal', 'meals'),
            text: meals.join('\n'),
          },
        ]
      : []),
    ...(weighings.length > 0
      ? [
          {
            id: `weights-${day}`,
            from: day,
            to: day,
            title: `Weigh ${reader.count(weighings.length, 'animal', 'animals')}`,
            text: weighings.join(', '),
          },
        ]
      : []),
  ]);
}
