import { isGone, type AnimalSummary, type SaleLine } from '@karyotome/contract';
import { clutchName } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { listAnimals } from '../animals/animals.service.ts';
import { statesOf } from '../states/animal-states.ts';
import { listedPublications } from '../publications/publications.queries.ts';
import { offersOf } from './offers.service.ts';
import { animalsHatchedHere, lastEvents } from './sales.queries.ts';

/** Breeders and mistakes are on no way to a buyer; what died is, where it was on its way before. */
const onItsWay = ({ status, clutchId }: AnimalSummary): boolean =>
  status === 'for-sale' ||
  status === 'reserved' ||
  status === 'sold' ||
  status === 'held-back' ||
  (status === 'undecided' && clutchId !== null);

/** Every animal that is decided upon, offered, reserved or sold, by number. */
export async function saleLines(work: Work): Promise<SaleLine[]> {
  const offerOf = await offersOf(work);
  const events = await lastEvents(work);
  const clutches = new Map((await animalsHatchedHere(work)).map((row) => [row.animalId, row]));
  const slugs = new Map((await listedPublications(work)).map(({ animalId, slug }) => [animalId, slug]));
  const animals = (await listAnimals(work)).filter(onItsWay);
  const here = animals.filter((animal) => !isGone(animal)).map(({ id }) => id);
  const states = await statesOf(work, here);
  return animals.map((animal): SaleLine => {
    const clutch = clutches.get(animal.id);
    const hatched = animal.hatchedOn === null ? null : Number(animal.hatchedOn.slice(0, 4));
    return {
      id: animal.id,
      animal,
      status: animal.status,
      event: events.get(animal.id) ?? null,
      season: clutch?.season ?? hatched,
      clutch: clutch ? clutchName(clutch.season, clutch.ordinal) : null,
      pairing: clutch ? { dam: clutch.dam, sires: clutch.sires } : null,
      offer: offerOf(animal.id),
      lacks: [...(states.get(animal.id)?.lacks ?? [])],
      slug: slugs.get(animal.id) ?? null,
    };
  });
}
