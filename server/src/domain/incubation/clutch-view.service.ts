import type { ClutchView, EggEventView, EggView } from '@karyotome/contract';
import {
  eggState,
  incubationClock,
  type DailyMeans,
  type Incubation,
  type IncubationClock,
} from '@karyotome/core';
import type { ClutchRow } from '../../db/breeding-rows.ts';
import { select, type Work } from '../../db/work.ts';
import { listAnimals } from '../animals/animals.service.ts';
import { findClutch } from '../season/clutches.repository.ts';
import { proposeNumbers } from '../season/clutches.service.ts';
import { seasonEvents } from '../season/season-events.ts';
import { rulesOf } from '../season/season-rules.ts';
import { waitsOf } from '../season/waits.ts';
import { dailyMeans } from './daily-means.ts';
import { eggEvents, eggsOf, toEggEvents } from './eggs.repository.ts';
import { listIncubators } from './incubators.service.ts';

/** The clocks of all clutches that are in the incubator. */
export async function incubationClocks(
  work: Work,
): Promise<{ id: string; name: string; clock: IncubationClock }[]> {
  const { rules } = await rulesOf(work);
  const means = await dailyMeans(work);
  const waits = await waitsOf(work, means);
  const events = await eggEvents(work);
  const clutches = await select<
    Pick<ClutchRow, 'id' | 'laidOn' | 'incubationC' | 'incubatorId'> & { name: string }
  >(
    work,
    `select id, laid_on as "laidOn", incubation_c as "incubationC", incubator_id as "incubatorId",
            to_char(season % 100, 'FM00') || to_char(ordinal, 'FM00') as name
       from clutches where collection_id = :collectionId and hatched_on is null and laid_on <= :today
      order by laid_on`,
    { today: work.today },
  );
  return clutches.map((clutch) => {
    const { id, name, incubatorId, laidOn } = clutch;
    const incubation = incubationOf(clutch, means.of(incubatorId, laidOn), events.get(id) ?? []);
    return { id, name, clock: incubationClock(incubation, waits.eggsToPip, rules, work.today) };
  });
}

/** What the clock needs of a clutch, from its events in date order. */
const incubationOf = (
  { laidOn, incubationC }: Pick<ClutchRow, 'laidOn' | 'incubationC'>,
  means: DailyMeans,
  events: readonly EggEventView[],
): Incubation => ({
  laidOn,
  setC: incubationC,
  means,
  firstPipOn: events.find(({ kind }) => kind === 'pip' || kind === 'out')?.on ?? null,
  checkedOn: events.filter(({ kind }) => kind === 'check').map(({ on }) => on),
});

interface ParentsRow {
  damId: string;
  sires: { id: string; weight: number; stored: boolean }[] | null;
}

/** One clutch from its pairing to the last egg. */
export async function viewClutch(work: Work, id: string): Promise<ClutchView> {
  const clutch = await findClutch(work, id);
  const { rules } = await rulesOf(work);
  const allMeans = await dailyMeans(work);
  const waits = await waitsOf(work, allMeans);
  const means = allMeans.of(clutch.incubatorId, clutch.laidOn);
  const events = (await eggEvents(work, id)).get(id) ?? [];
  const pairingEvents = (await seasonEvents(work, clutch.pairingId)).get(clutch.pairingId) ?? [];
  const animals = await listAnimals(work);
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  const [parents] = await select<ParentsRow>(
    work,
    `select p.dam_id as "damId",
            (select json_agg(json_build_object('id', s.sire_id, 'weight', s.weight, 'stored', s.stored)
                             order by s.stored, s.weight desc, s.sire_id)
               from pairing_sires s where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires
       from pairings p where p.collection_id = :collectionId and p.id = :id`,
    { id: clutch.pairingId },
  );
  const named = (animalId: string) => {
    const { number, name, label } = byId.get(animalId)!;
    return { id: animalId, number, name, label };
  };
  const sires = parents!.sires ?? [];
  const total = sires.reduce((sum, { weight }) => sum + weight, 0);
  const hatchlings = await select<{ id: string; number: string; eggId: string }>(
    work,
    `select id, number, egg_id as "eggId" from animals
      where collection_id = :collectionId and clutch_id = :id and egg_id is not null order by number`,
    { id },
  );
  const eggs = (await eggsOf(work, id)).map((egg): EggView => {
    const { collectionId: _c, clutchId: _k, ...shown } = egg;
    return {
      ...shown,
      state: eggState(egg.id, toEggEvents(events)),
      hatchlings: hatchlings.filter(({ eggId }) => eggId === egg.id).map(({ eggId: _, ...young }) => young),
    };
  });
  const incubators = await listIncubators(work, 0);
  const incubator = incubators.find((one) => one.id === clutch.incubatorId);
  const last = (kind: string): string | null =>
    pairingEvents.findLast((event) => event.kind === kind)?.on ?? null;
  const stages = eggs.map(({ state }) => state);
  return {
    id,
    name: clutchName(clutch),
    season: clutch.season,
    version: clutch.version,
    dam: named(parents!.damId),
    sires: sires.map(({ id: sireId, weight, stored }) => ({ ...named(sireId), p: weight / total, stored })),
    locks: pairingEvents.filter(({ kind }) => kind === 'lock').length,
    ovulatedOn: last('ovulation'),
    shedOn: last('pre-lay-shed'),
    laidOn: clutch.laidOn,
    hatchedOn: clutch.hatchedOn,
    hatched: clutch.hatched,
    note: clutch.note,
    incubationC: clutch.incubationC,
    incubator: incubator ? { id: incubator.id, name: incubator.name, alarms: incubator.alarms } : null,
    eggs,
    events,
    clock: incubationClock(
      incubationOf(clutch, means, events),
      waits.eggsToPip,
      rules,
      clutch.hatchedOn ?? work.today,
    ),
    means: [...means].map(([day, celsius]) => ({ day, celsius })).toSorted((a, b) => a.day - b.day),
    counts: {
      good: clutch.eggs - (clutch.slugs ?? 0),
      slugs: clutch.slugs ?? 0,
      pipped: stages.filter(({ stage }) => stage === 'pipped').length,
      out: stages.filter(({ stage }) => stage === 'out').length,
      died: stages.filter(({ stage }) => stage === 'died').length,
      young: stages.reduce((sum, { young }) => sum + young, 0),
    },
    nextNumbers: clutch.hatchedOn ? [] : await proposeNumbers(work, clutch, 2 * clutch.eggs),
    cards: await select(
      work,
      `select k.id, k.made_at as "madeAt", who.name as by from clutch_cards k join accounts who on who.id = k.author_id
        where k.collection_id = :collectionId and k.clutch_id = :id order by k.made_at desc`,
      { id },
    ),
  };
}

export const clutchName = ({ season, ordinal }: Pick<ClutchRow, 'season' | 'ordinal'>): string =>
  String(season % 100).padStart(2, '0') + String(ordinal).padStart(2, '0');
