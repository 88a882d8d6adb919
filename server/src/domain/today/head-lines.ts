import type { RoomClimateView, TodayLine } from '@karyotome/contract';
import {
  addDays,
  climateTasks,
  clutchTasks,
  heatTasks,
  miteTasks,
  seasonTasks,
  task,
  type FreezerLine,
  type Task,
} from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { groupBy } from '../../group-by.ts';
import { heatZones } from '../enclosures/heat.service.ts';
import { namedRacks } from '../enclosures/enclosures.queries.ts';
import { miteWatches } from '../health/mite-watches.service.ts';
import { incubationClocks } from '../incubation/clutch-view.service.ts';
import { listRooms } from '../climate/climate.service.ts';
import { listIncubators } from '../incubation/incubators.service.ts';
import { recentLapses } from '../sales/sales.queries.ts';
import { openForecasts } from '../season/forecasts.ts';
import { namedClutches, type BenchTask } from './today.queries.ts';

/** A line that stands before the animals'. */
export interface HeadLine {
  readonly due: Task;
  readonly key: string;
  /** The animal that it shows, if it is of one. */
  readonly animalId?: string;
  readonly of?: Partial<Pick<TodayLine, 'clutch' | 'incubator' | 'room' | 'zone' | 'rack'>>;
}

/** What stands before the animals: the freezer, the heat, mites, incubators, sales, the season, eggs, the bench. */
export async function headLines(
  work: Work,
  stock: readonly FreezerLine[],
  bench: readonly BenchTask[],
): Promise<HeadLine[]> {
  return [
    ...stockLines(stock, work.today),
    ...(await heatLines(work)),
    ...(await miteLines(work)),
    ...(await incubatorLines(work)),
    ...(await roomLines(work)),
    ...(await saleLines(work)),
    ...(await seasonLines(work)),
    ...(await clutchLines(work)),
    ...(await benchLines(work, bench)),
  ];
}

/** Prey that runs short is one line each: it is ordered before it is missed. */
function stockLines(freezer: readonly FreezerLine[], today: string): HeadLine[] {
  return freezer
    .filter(({ order }) => order)
    .map(({ prey, left, tonight, reorderAt, aWeek, runsOutOn }) => {
      const facts = { prey, left, tonight, reorderAt, perWeek: aWeek, runsOutOn };
      return { due: task({ code: left < 0 ? 'prey-short' : 'prey-order-due', facts }, today), key: prey };
    });
}

async function heatLines(work: Work): Promise<HeadLine[]> {
  const zones = await heatZones(work);
  if (zones.length === 0) return [];
  const racks = new Map((await namedRacks(work)).map(({ id, name }) => [id, name]));
  return zones.flatMap((zone) =>
    heatTasks(zone, work.today).map((due) => ({
      due,
      key: zone.id,
      of: { zone: { id: zone.id, name: zone.name, rack: racks.get(zone.rackId) ?? '' } },
    })),
  );
}

async function miteLines(work: Work): Promise<HeadLine[]> {
  return (await miteWatches(work)).flatMap((watch) =>
    miteTasks(watch).map((due) => ({ due, key: watch.id, of: { rack: { id: watch.id, name: watch.name } } })),
  );
}

async function incubatorLines(work: Work): Promise<HeadLine[]> {
  return (await listIncubators(work, 0))
    .filter(({ clutches }) => clutches.length > 0)
    .flatMap((place) => alarmLines(work, place, 'incubator'));
}

async function roomLines(work: Work): Promise<HeadLine[]> {
  return (await listRooms(work, 0)).flatMap((place) => alarmLines(work, place, 'room'));
}

const alarmLines = (
  work: Work,
  { id, name, alarms }: Pick<RoomClimateView, 'id' | 'name' | 'alarms'>,
  kind: 'incubator' | 'room',
): HeadLine[] =>
  climateTasks(alarms, work.today).map((due, i) => ({
    due,
    key: `${id}-${i}`,
    of: { [kind]: { id, name } },
  }));

/** Told for so many days. */
const LAPSE_TOLD_DAYS = 7;

/** What ran out by itself is said, since nobody did it. */
async function saleLines(work: Work): Promise<HeadLine[]> {
  const lapses = await recentLapses(work, { since: addDays(work.today, -LAPSE_TOLD_DAYS) });
  return lapses.map(({ animalId, until }) => ({
    due: task({ code: 'reservation-lapsed', facts: { until } }, work.today),
    key: animalId,
    animalId,
  }));
}

async function seasonLines(work: Work): Promise<HeadLine[]> {
  return (await openForecasts(work))
    .filter(({ isDamHere }) => isDamHere)
    .flatMap(({ damId, forecast }) =>
      seasonTasks(forecast, work.today).map((due) => ({ due, key: damId, animalId: damId })),
    );
}

async function clutchLines(work: Work): Promise<HeadLine[]> {
  return (await incubationClocks(work)).flatMap(({ id, name, clock }) =>
    clutchTasks(clock, work.today).map((due, i) => ({
      due,
      key: `${id}-${i}`,
      of: { clutch: { id, name } },
    })),
  );
}

/** Identifying and sexing is done clutch by clutch at the bench: one line for each clutch instead of one for each act. */
async function benchLines(work: Work, bench: readonly BenchTask[]): Promise<HeadLine[]> {
  const byClutch = groupBy(bench, ({ clutchId }) => clutchId);
  return (await namedClutches(work, [...byClutch.keys()])).map((clutch) => {
    const own = byClutch.get(clutch.id)!.map(({ task: due }) => due);
    const count = (kind: Task['kind']): number => own.filter((due) => due.kind === kind).length;
    const facts = { identify: count('identify'), sex: count('sex') };
    const records = own.flatMap((due) => due.records);
    return {
      due: task({ code: 'bench-work-due', facts }, own[0]!.dueOn, records),
      key: `${clutch.id}-bench`,
      of: { clutch },
    };
  });
}
