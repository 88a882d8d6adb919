import {
  isGone,
  type AnimalSummary,
  type ClutchSummary,
  type MealPreset,
  type TodayLine,
  type TodayView,
} from '@karyotome/contract';
import {
  addDays,
  climateTasks,
  clutchTasks,
  heatTasks,
  offeredStep,
  seasonTasks,
  task,
  type FreezerLine,
  type Meal,
  type Task,
} from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { listAnimals } from '../animals/animals.service.ts';
import { clutchSummaries } from '../season/pairings.service.ts';
import { freezerOf } from '../husbandry/freezer.service.ts';
import { herdOf } from '../husbandry/load-herd.ts';
import { type Herd, type HerdAnimal } from '../husbandry/herd.ts';
import { inWalkingOrder } from '../husbandry/places.ts';
import { incubationClocks } from '../incubation/clutch-view.service.ts';
import { listIncubators } from '../incubation/incubators.service.ts';
import { recentLapses } from '../sales/sales.queries.ts';
import { heatZones } from '../enclosures/heat.service.ts';

/**
 * What needs a person now: the freezer and the heat, incubators, the season, eggs, the bench, then animals in walking order
 * (room, rack, level, tub; what has no place comes first).
 */
export async function viewToday(work: Work): Promise<TodayView> {
  const animals = (await listAnimals(work)).filter((animal) => !isGone(animal));
  const herd = await herdOf(work);
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  const animalLines = inWalkingOrder(herd, [...herd.animals.values()]).flatMap((animal) =>
    linesOf(herd, animal, byId.get(animal.id)!),
  );
  const clutches = await clutchSummaries(work);
  const { thaw, lines: stock } = await freezerOf(work, herd);
  const lines = [
    ...stockLines(stock, work.today),
    ...(await heatLines(work, herd)),
    ...(await incubatorLines(work)),
    ...(await saleLines(work, byId)),
    ...seasonLines(herd, animals),
    ...(await clutchLines(work)),
    ...gatherBenchWork(animalLines, clutches),
  ];
  const left = (prey: string): number | null => stock.find((line) => line.prey === prey)?.left ?? null;
  return { today: work.today, lines, thaw: thaw.map((line) => ({ ...line, left: left(line.prey) })) };
}

type LineSubject = Partial<Omit<TodayLine, keyof Task>>;

const lineOf = (due: Task, key: string, of: LineSubject): TodayLine => ({
  ...due,
  key: `${key}-${due.kind}`,
  animal: null,
  clutch: null,
  incubator: null,
  advice: null,
  preset: null,
  zone: null,
  ...of,
});

/** Prey that runs short is one line each: it is ordered before it is missed. */
function stockLines(freezer: readonly FreezerLine[], today: string): TodayLine[] {
  return freezer
    .filter(({ order }) => order)
    .map(({ prey, left, tonight, reorderAt, aWeek, runsOutOn }) => {
      const facts = { prey, left, tonight, reorderAt, perWeek: aWeek, runsOutOn };
      return lineOf(task({ code: left < 0 ? 'prey-short' : 'prey-order-due', facts }, today), prey, {});
    });
}

async function heatLines(work: Work, herd: Herd): Promise<TodayLine[]> {
  const racks = new Map([...herd.enclosures.tubs.values()].map(({ rackId, rack }) => [rackId, rack]));
  return (await heatZones(work)).flatMap((zone) =>
    heatTasks(zone, work.today).map((due) =>
      lineOf(due, zone.id, {
        zone: { id: zone.id, name: zone.name, rack: racks.get(zone.rackId) ?? '' },
      }),
    ),
  );
}

async function incubatorLines(work: Work): Promise<TodayLine[]> {
  return (await listIncubators(work, 0))
    .filter(({ clutches }) => clutches.length > 0)
    .flatMap(({ id, name, alarms }) =>
      climateTasks(alarms, work.today).map((due, i) =>
        lineOf(due, `${id}-${i}`, { incubator: { id, name } }),
      ),
    );
}

/** Told for so many days. */
const LAPSE_TOLD_DAYS = 7;

/** What ran out by itself is said, since nobody did it. */
async function saleLines(work: Work, byId: ReadonlyMap<string, AnimalSummary>): Promise<TodayLine[]> {
  const lapses = await recentLapses(work, { since: addDays(work.today, -LAPSE_TOLD_DAYS) });
  return lapses.map(({ animalId, until }) =>
    lineOf(task({ code: 'reservation-lapsed', facts: { until } }, work.today), animalId, {
      animal: byId.get(animalId)!,
    }),
  );
}

function seasonLines(herd: Herd, animals: readonly AnimalSummary[]): TodayLine[] {
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  return herd.forecasts.flatMap(({ damId, forecast }) => {
    const animal = byId.get(damId);
    return animal ? seasonTasks(forecast, herd.today).map((due) => lineOf(due, damId, { animal })) : [];
  });
}

async function clutchLines(work: Work): Promise<TodayLine[]> {
  return (await incubationClocks(work)).flatMap(({ id, name, clock }) =>
    clutchTasks(clock, work.today).map((due, i) => lineOf(due, `${id}-${i}`, { clutch: { id, name } })),
  );
}

function linesOf(herd: Herd, { id }: HerdAnimal, animal: AnimalSummary): TodayLine[] {
  return herd.tasks(id, animal.identified).map((due, i) =>
    lineOf(due, `${id}-${i}`, {
      animal,
      advice: due.kind === 'move' ? herd.advice(id) : null,
      preset: due.kind === 'meal' ? presetOf(herd.meal(id)!) : null,
    }),
  );
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
    const facts = { identify: count('identify'), sex: count('sex') };
    const records = own.flatMap((line) => line.records);
    const due = task({ code: 'bench-work-due', facts }, own[0]!.dueOn, records);
    return [lineOf(due, `${clutch.id}-bench`, { clutch: { id: clutch.id, name: clutch.name } })];
  });
  return [...gathered, ...lines.filter((line) => !isBenchWork(line))];
}

function presetOf({ species, size, massG, state, plan }: Meal): MealPreset {
  return { species, size, preyG: massG, state, step: offeredStep(plan) };
}
