import type { IncubatorView } from '@karyotome/contract';
import { daysBetween } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import type { ClimatePlaceRow } from '../../db/breeding-rows.ts';
import { invalidField } from '../../refusal.ts';
import { listPlaces, placeOf } from '../climate/climate.service.ts';
import { clutchesByIncubator } from './incubators.queries.ts';

/** The incubator that a clutch is put into. @throws Refusal `invalid` at `incubatorId` where there is none */
export async function namedIncubator(work: Work, id: string): Promise<ClimatePlaceRow> {
  const incubator = await placeOf(work, 'incubator', id);
  if (!incubator) throw invalidField('incubatorId', 'names no incubator of this collection');
  return incubator;
}

/**
 * The incubators with what is wrong in them now, and what lies in them.
 *
 * @param days - of which hourly means are returned; 0 for none
 */
export async function listIncubators(work: Work, days: number): Promise<IncubatorView[]> {
  const places = await listPlaces(work, 'incubator', days);
  const clutches = await clutchesByIncubator(work);
  return places.map(({ setC, ...place }) => ({
    ...place,
    // The table has it for every incubator.
    setC: setC!,
    clutches: clutches
      .filter(({ incubatorId }) => incubatorId === place.id)
      .map(({ id, name, laidOn }) => ({ id, name, day: daysBetween(laidOn, work.today) })),
  }));
}
