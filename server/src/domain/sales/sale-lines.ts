import type { AnimalSummary, SaleLine } from '@karyotome/contract';
import { clutchName, saleLacks, type FactOf, type SaleLacks, type SaleRules } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { listAnimals } from '../animals/animals.service.ts';
import type { Herd } from '../husbandry/herd.ts';
import { herdOf } from '../husbandry/load-herd.ts';
import { listedPublications } from '../publications/publications.queries.ts';
import { offersOf } from './offers.service.ts';
import { saleRulesOf } from './sale-rules.ts';
import { animalsHatchedHere, lastEvents } from './sales.queries.ts';

/** Breeders and mistakes are on no way to a buyer; what died is, where it was on its way before. */
const onItsWay = ({ status, clutchId }: AnimalSummary): boolean =>
  status === 'for-sale' ||
  status === 'reserved' ||
  status === 'sold' ||
  status === 'held-back' ||
  (status === 'undecided' && clutchId !== null);

/** What an animal of the herd lacks to be ready for sale; nothing of one that is not here any more. */
export function lacksOf(herd: Herd, rules: SaleRules, id: string): FactOf<SaleLacks>[] {
  const animal = herd.animals.get(id);
  return animal ? saleLacks(animal.history, rules) : [];
}

/** Every animal that is decided upon, offered, reserved or sold, by number. */
export async function saleLines(work: Work): Promise<SaleLine[]> {
  const { rules } = await saleRulesOf(work);
  const offerOf = await offersOf(work);
  const events = await lastEvents(work);
  const clutches = new Map((await animalsHatchedHere(work)).map((row) => [row.animalId, row]));
  const slugs = new Map((await listedPublications(work)).map(({ animalId, slug }) => [animalId, slug]));
  const herd = await herdOf(work);
  return (await listAnimals(work)).filter(onItsWay).map((animal): SaleLine => {
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
      lacks: animal.status === 'sold' ? [] : lacksOf(herd, rules, animal.id),
      slug: slugs.get(animal.id) ?? null,
    };
  });
}
