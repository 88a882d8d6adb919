import type { AnimalSummary, ClutchSummary, TodayLine, TodayView } from '@karyotome/contract';
import { animalTasks, clutchTasks, nextMeal } from '@karyotome/core';
import { Router } from 'express';
import type { Work } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { adviseFor, loadEnclosures } from '../animals/enclosure-advice.ts';
import { listAnimals } from '../animals/animals.service.ts';
import { clutchSummaries } from '../breeding/pairings.service.ts';
import { recentRecords, toHistory, type ValidRecord } from '../records/history.ts';

/** What needs a person now, in walking order: room, rack, level, tub; what has no place comes first. */
export async function viewToday(work: Work): Promise<TodayView> {
  const animals = (await listAnimals(work)).filter((a) => a.status !== 'sold' && a.status !== 'died');
  const records = await recentRecords(work);
  const enclosures = await loadEnclosures(work);
  const animalLines = animals
    .toSorted(byPlace)
    .flatMap((animal) => linesOf(animal, records.get(animal.id) ?? [], enclosures, work.today));
  const clutches = await clutchSummaries(work);
  const clutchLines = clutches
    .filter((clutch) => clutch.hatchedOn === null)
    .flatMap((clutch) =>
      clutchTasks(clutch.laidOn, work.today).map((task): TodayLine => ({
        ...task,
        key: `${clutch.id}-${task.kind}`,
        animal: null,
        clutch: { id: clutch.id, name: clutch.name },
        advice: null,
        preset: null,
      })),
    );
  const lines = [...clutchLines, ...gatherBenchWork(animalLines, clutches)];
  return { today: work.today, lines, thaw: countPrey(lines) };
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
    { history, sex: { sex: animal.sex, on: sexedOn }, identified: animal.identified, advice },
    today,
  );
  return tasks.map((task) => ({
    ...task,
    key: `${animal.id}-${task.kind}`,
    animal,
    clutch: null,
    advice: task.kind === 'move' ? advice : null,
    preset: task.kind === 'meal' ? preyOf(history) : null,
  }));
}

/** Identifying and sexing is done clutch by clutch at the bench: one line for each clutch instead of one for each act. */
function gatherBenchWork(lines: readonly TodayLine[], clutches: readonly ClutchSummary[]): TodayLine[] {
  const isBenchWork = (line: TodayLine): boolean =>
    (line.kind === 'identify' || (line.kind === 'sex' && line.animal?.sex === 'unknown')) &&
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
