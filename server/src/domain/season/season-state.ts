import {
  isGone,
  type AnimalSummary,
  type BoardFemale,
  type BoardMale,
  type SeasonBoardView,
} from '@karyotome/contract';
import {
  daysBetween,
  femaleReadiness,
  forecastSeason,
  malesWith,
  maleReadiness,
  pairingCautions,
  seasonOf,
  type History,
  type MaleUse,
  type SeasonRules,
  type Waits,
} from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { summaries } from '../animals/animals.repository.ts';
import { askSoon, geneticsSoon, type Genetics } from '../genetics/genetics.service.ts';
import { parentOf } from '../genetics/inferred-of-animal.ts';
import { herdOf } from '../husbandry/load-herd.ts';
import { OPEN_DAYS } from './introductions.ts';
import { rulesOf } from './season-rules.ts';
import { seasonEvents, toSeasonEvents } from './season-events.ts';
import { waitsOf } from './waits.ts';

interface PairingOfSeason {
  id: string;
  season: number;
  startedOn: string;
  damId: string;
  version: number;
  sires: { id: string; weight: number; stored: boolean }[];
  clutch: { id: string; name: string; laidOn: string; eggs: number; hatchedOn: string | null } | null;
}

const PAIRINGS_SQL = `
  select p.id, p.season, p.started_on as "startedOn", p.dam_id as "damId", p.version,
         (select json_agg(json_build_object('id', s.sire_id, 'weight', s.weight, 'stored', s.stored))
            from pairing_sires s where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires,
         (select json_build_object('id', c.id, 'name', to_char(c.season % 100, 'FM00') || to_char(c.ordinal, 'FM00'),
                                   'laidOn', c.laid_on, 'eggs', c.eggs, 'hatchedOn', c.hatched_on)
            from clutches c where c.collection_id = p.collection_id and c.pairing_id = p.id
           order by c.laid_on desc limit 1) as clutch
    from pairings p where p.collection_id = :collectionId order by p.started_on, p.id`;

/** Eggs that lie longer were forgotten in the book. */
const LONGEST_INCUBATION_DAYS = 100;
/** Lighter than this share of the floor, an animal is not grown enough to be on the board. */
const NEARLY_GROWN = 0.7;

/** What every view of the season reads once. */
export interface SeasonState {
  readonly season: number;
  readonly rules: SeasonRules;
  readonly rulesVersion: number;
  readonly waits: Waits;
  readonly genetics: Genetics;
  readonly females: BoardFemale[];
  readonly males: BoardMale[];
}

/** The season as it stands: females and males that are grown or nearly so, or have a part in it. */
export async function seasonState(work: Work, genetics: Genetics): Promise<SeasonState> {
  const { rules, version } = await rulesOf(work);
  const season = seasonOf(work.today, rules);
  const waits = await waitsOf(work);
  const animals = (await summaries(work, genetics)).filter((animal) => !isGone(animal));
  const byId = new Map(animals.map((animal) => [animal.id, animal]));
  const pairings = await select<PairingOfSeason>(work, PAIRINGS_SQL);
  const events = await seasonEvents(work);
  const herd = await herdOf(work);
  const historyOf = (animal: AnimalSummary): History => herd.animal(animal.id).history;
  const ofSeason = pairings.filter((pairing) => pairing.season === season || goesOn(pairing, work.today));
  const uses = malesUses(ofSeason, events);

  const toFemale = (animal: AnimalSummary): BoardFemale => {
    const own = pairings.filter((pairing) => pairing.damId === animal.id);
    const current = own.findLast((pairing) => ofSeason.includes(pairing)) ?? null;
    const last = own.findLast((pairing) => pairing.clutch !== null)?.clutch ?? null;
    // Her clutch of this season is not what she has to recover from before this season.
    const before = own.findLast((pairing) => pairing.clutch !== null && pairing !== current)?.clutch ?? null;
    const { id, number, name, label, massG, hatchedOn } = animal;
    const history = historyOf(animal);
    const isOlder = hatchedOn !== null && daysBetween(hatchedOn, work.today) / 365.25 >= rules.olderFromYears;
    return {
      id,
      number,
      name,
      label,
      massG,
      lastMealOn: history.feedings.findLast(({ taken }) => taken)?.on ?? null,
      hatchedOn,
      floorG: isOlder ? rules.olderFemaleFloorG : rules.femaleFloorG,
      lastClutch: last && { id: last.id, name: last.name, laidOn: last.laidOn, eggs: last.eggs },
      readiness: femaleReadiness(history, (current ? before : last)?.laidOn ?? null, rules, work.today),
      pairing: current && {
        id: current.id,
        version: current.version,
        sires: (current.sires ?? [])
          .map((sire) => ({ ...sire, number: byId.get(sire.id)?.number ?? '' }))
          .toSorted(
            (a, b) =>
              Number(a.stored) - Number(b.stored) || b.weight - a.weight || (a.number < b.number ? -1 : 1),
          ),
        events: events.get(current.id) ?? [],
        forecast: forecastSeason(
          toSeasonEvents(events.get(current.id) ?? []),
          current.clutch?.laidOn ?? null,
          waits,
          work.today,
        ),
        clutch: current.clutch && {
          id: current.clutch.id,
          name: current.clutch.name,
          day: daysBetween(current.clutch.laidOn, current.clutch.hatchedOn ?? work.today),
          eggs: current.clutch.eggs,
          hatchedOn: current.clutch.hatchedOn,
        },
        cautions: cautionsOf(genetics, current),
      },
    };
  };
  const toMale = (animal: AnimalSummary): BoardMale => {
    const use = uses.get(animal.id) ?? { females: 0, locks: 0, lastLockOn: null, withId: null };
    const history = historyOf(animal);
    const asUse: MaleUse = { ...use, isOut: use.withId !== null };
    return {
      id: animal.id,
      number: animal.number,
      name: animal.name,
      label: animal.label,
      massG: animal.massG,
      weights: history.weights.map(({ on, massG }) => ({ on, massG })),
      ...use,
      readiness: maleReadiness(history, asUse, rules, work.today),
    };
  };
  const inSeason = new Set(ofSeason.flatMap((p) => [p.damId, ...(p.sires ?? []).map(({ id }) => id)]));
  const isGrown = (animal: AnimalSummary, floorG: number): boolean =>
    inSeason.has(animal.id) || (animal.massG ?? 0) >= floorG * NEARLY_GROWN;
  return {
    season,
    rules,
    rulesVersion: version,
    waits,
    genetics,
    females: animals.filter((a) => a.sex === 'female' && isGrown(a, rules.olderFemaleFloorG)).map(toFemale),
    males: animals.filter((a) => a.sex === 'male' && isGrown(a, rules.maleFloorG)).map(toMale),
  };
}

/** Of an earlier season, but not over: no eggs yet, or eggs that have not hatched. */
function goesOn({ startedOn, clutch }: PairingOfSeason, today: string): boolean {
  return clutch
    ? clutch.hatchedOn === null && daysBetween(clutch.laidOn, today) <= LONGEST_INCUBATION_DAYS
    : daysBetween(startedOn, today) <= OPEN_DAYS;
}

function cautionsOf(genetics: Genetics, { damId, sires }: PairingOfSeason): string[] {
  const present = (sires ?? []).filter(({ stored }) => !stored);
  return [
    ...new Set(
      present.flatMap(({ id }) =>
        pairingCautions(parentOf(genetics, id), parentOf(genetics, damId), genetics.catalogue),
      ),
    ),
  ];
}

type Use = Omit<MaleUse, 'isOut'> & { withId: string | null };

function malesUses(
  pairings: readonly PairingOfSeason[],
  events: Awaited<ReturnType<typeof seasonEvents>>,
): Map<string, Use> {
  const uses = new Map<string, Use>();
  for (const pairing of pairings) {
    const own = toSeasonEvents(events.get(pairing.id) ?? []);
    const inside = pairing.clutch ? [] : malesWith(own);
    for (const sireId of new Set(own.flatMap((event) => event.sireId ?? []))) {
      const locks = own.filter((event) => event.kind === 'lock' && event.sireId === sireId);
      const old = uses.get(sireId) ?? { females: 0, locks: 0, lastLockOn: null, withId: null };
      const lastLockOn = [old.lastLockOn, ...locks.map(({ on }) => on)].filter((on) => on !== null);
      uses.set(sireId, {
        females: old.females + 1,
        locks: old.locks + locks.length,
        lastLockOn: lastLockOn.toSorted().at(-1) ?? null,
        withId: inside.includes(sireId) ? pairing.damId : old.withId,
      });
    }
  }
  return uses;
}

async function tooRelated(
  work: Work,
  genetics: Genetics,
  females: readonly BoardFemale[],
  males: readonly BoardMale[],
  bound: number,
): Promise<SeasonBoardView['related']> {
  if (females.length === 0 || males.length === 0) return [];
  const animals = [...females, ...males].map(({ id }) => id);
  const kinships = await askSoon(work, genetics, { ask: 'kinships', animals });
  if (!kinships) return [];
  return males.flatMap((male, m) => {
    const row = females.length + m;
    return females.flatMap((female, f) => {
      const inbreeding = kinships[(row * (row + 1)) / 2 + f]!;
      return inbreeding > bound + 1e-9 ? [{ femaleId: female.id, maleId: male.id, inbreeding }] : [];
    });
  });
}

export async function viewBoard(work: Work): Promise<SeasonBoardView> {
  const { season, females, males, rules, rulesVersion, waits, genetics } = await seasonState(
    work,
    await geneticsSoon(work),
  );
  return {
    season,
    today: work.today,
    females,
    males,
    related: await tooRelated(work, genetics, females, males, rules.inbreedingBound),
    rules,
    rulesVersion,
    learned: {
      ovulationToShed: waits.ovulationToShed.observations,
      shedToEggs: waits.shedToEggs.observations,
      eggsToPip: waits.eggsToPip.observations,
    },
  };
}
