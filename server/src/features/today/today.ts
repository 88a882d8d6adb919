import type { AnimalSummary, ClutchSummary, TodayLine, TodayView } from '@karyotome/contract';
import { animalTasks, climateTasks, clutchTasks, nextMeal, seasonTasks, type Task } from '@karyotome/core';
import { Router } from 'express';
import type { Work } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { adviseFor, loadEnclosures } from '../animals/enclosure-advice.ts';
import { listAnimals } from '../animals/animals.service.ts';
import { clutchSummaries } from '../breeding/pairings.service.ts';
import { incubationClocks } from '../incubation/clutch-view.service.ts';
import { listIncubators } from '../incubation/incubators.service.ts';
import { recentRecords, toHistory, type ValidRecord } from '../records/history.ts';
import { openForecasts } from '../season/forecasts.ts';

/** What needs a person now, in walking order: room, rack, level, tub; what has no place comes first. */
export async function viewToday(work: Work): Promise<TodayView> {
  const animals = (await listAnimals(work)).filter((a) => a.status !== 'sold' && a.status !== 'died');
  const records = await recentRecords(work);
  const enclosures = await loadEnclosures(work);
  const animalLines = animals
    .toSorted(byPlace)
    .flatMap((animal) => linesOf(animal, records.get(animal.id) ?? [], enclosures, work.today));
  const clutches = await clutchSummaries(work);
  const lines = [
    ...(await incubatorLines(work)),
    ...(await seasonLines(work, animals)),
    ...(await clutchLines(work)),
    ...gatherBenchWork(animalLines, clutches),
  ];
  return { today: work.today, lines, thaw: countPrey(lines) };
}

const lineOf = (task: Task, key: string, of: Partial<TodayLine>): TodayLine => ({
  ...task,
  key: `${key}-${task.kind}`,
  animal: null,
  clutch: null,
  incubator: null,
  advice: null,
  preset: null,
  ...of,
});

async function incubatorLines(work: Work): Promise<TodayLine[]> {
  return (await listIncubators(work, 0))
    .filter(({ clutches }) => clutches.length > 0)
    .flatMap(({ id, name, alarms }) =>
      climateTasks(alarms, work.today).map((task, i) =>
        lineOf(task, `${id}-${i}`, { incubator: { id, name } }),
      ),
    );
}

async function seasonLines(work: Work, animals: readonly AnimalSummary[]): Promise<TodayLine[]> {
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  return (await openForecasts(work)).flatMap(({ damId, forecast }) => {
    const animal = byId.get(damId);
    return animal ? seasonTasks(forecast, work.today).map((task) => lineOf(task, damId, { animal })) : [];
  });
}

async function clutchLines(work: Work): Promise<TodayLine[]> {
  return (await incubationClocks(work)).flatMap(({ id, name, clock }) =>
    clutchTasks(clock, work.today).map((task, i) => lineOf(task, `${id}-${i}`, { clutch: { id, name } })),
  );
}

function linesOf(
  animal: AnimalSummary,
  records: readonly ValidRecord[],
  enclosures: Awaited<ReturnType<typeof loadEnclosures>>,
  today: string,
): TodayLine[] {
  const history = toHistory(animal.hatchedOn, records);
  const advice = adviseFor(enclosures, animal.tub?.tubId ?? null, history, today);
  const sexedOn = records.findLast((record) => record.kind === 'sex')?.onDay ?? null;
  const tasks = animalTasks(
    {
      history,
      sex: { sex: animal.sex, on: sexedOn },
      identified: animal.identified,
      unsure: unsureOf(records),
      advice,
    },
    today,
  );
  return tasks.map((task) =>
    lineOf(task, animal.id, {
      animal,
      advice: task.kind === 'move' ? advice : null,
      preset: task.kind === 'meal' ? preyOf(history) : null,
    }),
  );
}

/** The identification that counts, where it is not certain. */
function unsureOf(records: readonly ValidRecord[]): { sure: string; on: string } | null {
  const last = records.findLast((record) => record.kind === 'identification');
  const sure = last?.body['sure'];
  return last && typeof sure === 'string' && sure !== 'certain' ? { sure, on: last.onDay } : null;
}

/** Identifying and sexing is done clutch by clutch at the bench: one line for each clutch instead of one for each act. */
function gatherBenchWork(lines: readonly TodayLine[], clutches: readonly ClutchSummary[]): TodayLine[] {
  const isBenchWork = (line: TodayLine): boolean =>
    ((line.kind === 'identify' && !line.animal?.identified) ||
      (line.kind === 'sex' && line.animal?.sex === 'unknown')) &&
    line.animal?.clutchId != null;
  const gathered = clutches.flatMap((clutch): TodayLine[] => {
    const own = lines.filter((line) => isBenchWork(line) && line.animal!.clutchId === clutch.id);
    if (own.length === 0) return [];
    const count = (kind: TodayLine['kind']): number => own.filter((line) => line.kind === kind).length;
    const words = [
      ...(count('identify') > 0 ? [`identify ${count('identify')}`] : []),
      ...(count('sex') > 0 ? [`sex ${count('sex')}`] : []),
    ].join(', ');
    return [
      {
        ...own[0]!,
        kind: 'identify',
        key: `${clutch.id}-bench`,
        text: words[0]!.toUpperCase() + words.slice(1),
        why: 'Hatchlings are identified and sexed after the first shed. Sexing is taught hand to hand: inexperienced hands hurt animals.',
        animal: null,
        clutch: { id: clutch.id, name: clutch.name },
      },
    ];
  });
  return [...gathered, ...lines.filter((line) => !isBenchWork(line))];
}

function preyOf(history: ReturnType<typeof toHistory>): TodayLine['preset'] {
  const meal = nextMeal(history);
  if (!meal) return null;
  const [species, size] = meal.prey.split(' ') as ['rat' | 'mouse', string];
  return { species, size, preyG: meal.preyG };
}

function byPlace(a: AnimalSummary, b: AnimalSummary): number {
  const key = ({ tub }: AnimalSummary): string =>
    tub
      ? `1${tub.room}|${tub.rack}|${String(tub.level).padStart(2, '0')}|${String(tub.slot).padStart(2, '0')}`
      : '0';
  const [x, y] = [key(a) + a.number, key(b) + b.number];
  return x < y ? -1 : x > y ? 1 : 0;
}

function countPrey(lines: readonly TodayLine[]): TodayView['thaw'] {
  const counts = new Map<string, number>();
  for (const { preset } of lines) {
    if (preset)
      counts.set(
        `${preset.species} ${preset.size}`,
        (counts.get(`${preset.species} ${preset.size}`) ?? 0) + 1,
      );
  }
  return [...counts]
    .map(([prey, count]) => ({ prey, count }))
    .toSorted((a, b) => b.count - a.count || (a.prey < b.prey ? -1 : 1));
}

export function todayRoutes({ read }: Endpoints): Router {
  return Router().get(
    '/today',
    read((work) => viewToday(work)),
  );
}
