import type { ClutchView, EggEventView, EggView } from '@karyotome/contract';
import {
  clutchName,
  eggState,
  incubationClock,
  type DailyMeans,
  type Incubation,
  type IncubationClock,
} from '@karyotome/core';
import type { ClutchRow } from '../../db/breeding-rows.ts';
import { type Work } from '../../db/work.ts';
import { listAnimals } from '../animals/animals.service.ts';
import { findClutch } from '../season/clutches.repository.ts';
import { proposeNumbers } from '../season/clutches.service.ts';
import { seasonEvents } from '../season/season-events.ts';
import { rulesOf } from '../season/season-rules.ts';
import { waitsOf } from '../season/waits.ts';
import { dailyMeans } from './daily-means.ts';
import { eggEvents, eggsOf, toEggEvents } from './eggs.repository.ts';
import { listIncubators } from './incubators.service.ts';
import {
  clutchesInIncubation,
  hatchlingsByEgg,
  parentsOfPairing,
  printedCards,
} from './clutch-view.queries.ts';

/** The clocks of all clutches that are in the incubator. */
export async function incubationClocks(
  work: Work,
): Promise<{ id: string; name: string; clock: IncubationClock }[]> {
  const { rules } = await rulesOf(work);
  const means = await dailyMeans(work);
  const waits = await waitsOf(work, means);
  const events = await eggEvents(work);
  const clutches = await clutchesInIncubation(work);
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

/** One clutch from its pairing to the last egg. */
export async function viewClutch(work: Work, id: string): Promise<ClutchView> {
  const clutch = await findClutch(work, id);
  const { rules } = await rulesOf(work);
  const allMeans = await dailyMeans(work);
  const waits = await waitsOf(work, allMeans);
  const means = allMeans.of(clutch.incubatorId, clutch.laidOn);
  const events = (await eggEvents(work, id)).get(id) ?? [];
  const pairingEvents = (await seasonEvents(work, [clutch.pairingId])).get(clutch.pairingId) ?? [];
  const animals = await listAnimals(work);
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  const [parents] = await parentsOfPairing(work, { id: clutch.pairingId });
  const named = (animalId: string) => {
    const { number, name, label } = byId.get(animalId)!;
    return { id: animalId, number, name, label };
  };
  const sires = parents!.sires ?? [];
  const total = sires.reduce((sum, { weight }) => sum + weight, 0);
  const eggs = await viewEggs(work, id, events);
  const incubators = await listIncubators(work, 0);
  const incubator = incubators.find((one) => one.id === clutch.incubatorId);
  const last = (kind: string): string | null =>
    pairingEvents.findLast((event) => event.kind === kind)?.on ?? null;
  return {
    id,
    name: clutchName(clutch.season, clutch.ordinal),
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
    counts: countsOf(clutch, eggs),
    nextNumbers: clutch.hatchedOn ? [] : await proposeNumbers(work, clutch, 2 * clutch.eggs),
    cards: await printedCards(work, { id }),
  };
}

/** The eggs as they lie, with what became of each. */
async function viewEggs(work: Work, clutchId: string, events: readonly EggEventView[]): Promise<EggView[]> {
  const hatchlings = await hatchlingsByEgg(work, { id: clutchId });
  return (await eggsOf(work, clutchId)).map((egg): EggView => {
    const { collectionId: _c, clutchId: _k, ...shown } = egg;
    return {
      ...shown,
      state: eggState(egg.id, toEggEvents(events)),
      hatchlings: hatchlings.filter(({ eggId }) => eggId === egg.id).map(({ eggId: _, ...young }) => young),
    };
  });
}

function countsOf({ eggs, slugs }: ClutchRow, views: readonly EggView[]): ClutchView['counts'] {
  const count = (stage: EggView['state']['stage']): number =>
    views.filter(({ state }) => state.stage === stage).length;
  return {
    good: eggs - (slugs ?? 0),
    slugs: slugs ?? 0,
    pipped: count('pipped'),
    out: count('out'),
    died: count('died'),
    young: views.reduce((sum, { state }) => sum + state.young, 0),
  };
}
