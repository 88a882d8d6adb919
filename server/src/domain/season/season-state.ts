import {
  isGone,
  type AnimalSummary,
  type BoardFemale,
  type BoardMale,
  type SeasonBoardView,
} from '@karyotome/contract';
import { daysBetween, seasonOf, type SeasonRules, type Waits } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { summaries } from '../animals/animals.repository.ts';
import { askSoon, geneticsSoon, type Genetics } from '../genetics/genetics.service.ts';
import { herdOf } from '../husbandry/load-herd.ts';
import { OPEN_DAYS } from './introductions.queries.ts';
import { boardFemale, boardMale, malesUses, type BoardState } from './board-animals.ts';
import { rulesOf } from './season-rules.ts';
import { seasonEvents } from './season-events.ts';
import { waitsOf } from './waits.ts';
import { type PairingOfSeason, pairingsWithClutch } from './season-state.queries.ts';

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
  const pairings = await pairingsWithClutch(work);
  const events = await seasonEvents(work);
  const herd = await herdOf(work);
  const ofSeason = pairings.filter((pairing) => pairing.season === season || goesOn(pairing, work.today));
  const state: BoardState = {
    today: work.today,
    rules,
    waits,
    genetics,
    pairings,
    ofSeason,
    events,
    uses: malesUses(ofSeason, events),
    historyOf: (id) => herd.animal(id).history,
    numberOf: (id) => byId.get(id)?.number ?? '',
  };

  const inSeason = new Set(ofSeason.flatMap((p) => [p.damId, ...p.sires.map(({ id }) => id)]));
  const isGrown = (animal: AnimalSummary, floorG: number): boolean =>
    inSeason.has(animal.id) || (animal.massG ?? 0) >= floorG * NEARLY_GROWN;
  return {
    season,
    rules,
    rulesVersion: version,
    waits,
    genetics,
    females: animals
      .filter((a) => a.sex === 'female' && isGrown(a, rules.olderFemaleFloorG))
      .map((a) => boardFemale(state, a)),
    males: animals
      .filter((a) => a.sex === 'male' && isGrown(a, rules.maleFloorG))
      .map((a) => boardMale(state, a)),
  };
}

/** Of an earlier season, but not over: no eggs yet, or eggs that have not hatched. */
function goesOn({ startedOn, clutch }: PairingOfSeason, today: string): boolean {
  return clutch
    ? clutch.hatchedOn === null && daysBetween(clutch.laidOn, today) <= LONGEST_INCUBATION_DAYS
    : daysBetween(startedOn, today) <= OPEN_DAYS;
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
