import {
  FEMALE_GROUPS,
  MALE_GROUPS,
  type BoardFemale,
  type BoardMale,
  type FemaleGroup,
  type MaleGroup,
  type RelatedMate,
  type SeasonBoardView,
} from '@karyotome/contract';
import { addDays, daysBetween, femaleFloor, forecastSeason, seasonOf, type Waits } from '@karyotome/core';
import type { Work } from '../../db/work.ts';
import { groupBy } from '../../group-by.ts';
import { findAnimal, summariesOf } from '../animals/animals.service.ts';
import { askSoon, geneticsSoon, type Genetics } from '../genetics/genetics.service.ts';
import { namedAnimals } from '../genetics/genetics.queries.ts';
import { statesOf, unstoredStates } from '../states/animal-states.ts';
import type { ComputedState } from '../states/compute-state.ts';
import { boardOrder } from './board-place.ts';
import { boardEntries, countBoard, weightsSince, type BoardEntry } from './board.queries.ts';
import { cautionsOfPairing } from './pairing-cautions.ts';
import { seasonEvents, toSeasonEvents } from './season-events.ts';
import { rulesOf } from './season-rules.ts';
import { pairingsOfDams, type PairingOfSeason } from './season-state.queries.ts';
import { waitsOf } from './waits.ts';

/** A male's weights of so many days are shown, for the trend. */
const TREND_DAYS = 365;

/** The season as it stands: its rules, and how many are on the board. */
export async function viewBoard(work: Work): Promise<SeasonBoardView> {
  const { rules, version } = await rulesOf(work);
  const waits = await waitsOf(work);
  const unstored = await unstoredStates(work);
  const counted = [
    ...(await countBoard(
      work,
      unstored.map(({ id }) => id),
    )),
    ...unstored.flatMap(({ sex, state: { board } }) =>
      board ? [{ sex, group: board.group, count: 1 }] : [],
    ),
  ];
  const inGroup = (sex: string, group: FemaleGroup | MaleGroup): number =>
    counted
      .filter((one) => one.sex === sex && one.group === group)
      .reduce((sum, { count }) => sum + count, 0);
  const each = <G extends FemaleGroup | MaleGroup>(sex: string, groups: readonly G[]): Record<G, number> =>
    Object.fromEntries(groups.map((group) => [group, inGroup(sex, group)])) as Record<G, number>;
  return {
    season: seasonOf(work.today, rules),
    today: work.today,
    females: each('female', FEMALE_GROUPS),
    males: each('male', MALE_GROUPS),
    rules,
    rulesVersion: version,
    learned: {
      ovulationToShed: waits.ovulationToShed.observations,
      shedToEggs: waits.shedToEggs.observations,
      eggsToPip: waits.eggsToPip.observations,
    },
  };
}

/** The animals of a sex on the board, in the order in which they are shown. */
export async function boardInOrder(work: Work, sex: 'female' | 'male'): Promise<BoardEntry[]> {
  const unstored = await unstoredStates(work);
  const stored = await boardEntries(work, sex);
  const fresh = unstored.filter((one) => one.sex === sex).flatMap(toEntry);
  return [...stored, ...fresh].toSorted(
    (a, b) =>
      a.order - b.order ||
      (sex === 'male' ? (b.massG ?? 0) - (a.massG ?? 0) : 0) ||
      (a.number < b.number ? -1 : 1),
  );
}

const toEntry = ({ id, number, state: { board, weight } }: ComputedState): BoardEntry[] =>
  board
    ? [{ id, number, group: board.group, order: boardOrder(board.group), massG: weight?.massG ?? null }]
    : [];

/** Females as the board shows them. */
export async function boardFemales(
  work: Work,
  entries: readonly Pick<BoardEntry, 'id'>[],
): Promise<BoardFemale[]> {
  const ids = entries.map(({ id }) => id);
  const { rules } = await rulesOf(work);
  const waits = await waitsOf(work);
  const genetics = await geneticsSoon(work);
  const animals = new Map((await summariesOf(work, ids)).map((animal) => [animal.id, animal]));
  const states = await statesOf(work, ids);
  const pairings = groupBy(await pairingsOfDams(work, ids), ({ damId }) => damId);
  const current = [...states.values()].flatMap(({ board }) => board?.pairingId ?? []);
  const events = await seasonEvents(work, current);
  const males = [...pairings.values()].flat().flatMap(({ sires }) => sires.map(({ id }) => id));
  const numbers = new Map((await namedAnimals(work, males)).map(({ id, number }) => [id, number]));
  const told: ToldOfPairing = { events, numbers, waits, genetics, today: work.today };
  return ids.map((id): BoardFemale => {
    const { number, name, label, massG, hatchedOn } = animals.get(id)!;
    const state = states.get(id)!;
    const { group, readiness, pairingId } = state.board!;
    const own = pairings.get(id) ?? [];
    const pairing = own.find((one) => one.id === pairingId);
    const last = own.findLast(({ clutch }) => clutch !== null)?.clutch;
    return {
      id,
      group: group as FemaleGroup,
      number,
      name,
      label,
      massG,
      lastMealOn: state.appetite.lastTakenOn,
      hatchedOn,
      floorG: femaleFloor(hatchedOn, rules, work.today).floorG,
      lastClutch: last ? { id: last.id, name: last.name, laidOn: last.laidOn, eggs: last.eggs } : null,
      readiness,
      pairing: pairing ? showPairing(pairing, told) : null,
    };
  });
}

/** What a female's pairing is shown from. */
interface ToldOfPairing {
  readonly events: Awaited<ReturnType<typeof seasonEvents>>;
  /** Of the males, by their ids. */
  readonly numbers: ReadonlyMap<string, string>;
  readonly waits: Waits;
  readonly genetics: Genetics;
  readonly today: string;
}

function showPairing(
  pairing: PairingOfSeason,
  { events, numbers, waits, genetics, today }: ToldOfPairing,
): BoardFemale['pairing'] {
  const { id, version, clutch, sires } = pairing;
  const own = events.get(id) ?? [];
  return {
    id,
    version,
    sires: sires
      .map((sire) => ({ ...sire, number: numbers.get(sire.id) ?? '' }))
      .toSorted(
        (a, b) =>
          Number(a.stored) - Number(b.stored) || b.weight - a.weight || (a.number < b.number ? -1 : 1),
      ),
    events: own,
    forecast: forecastSeason(toSeasonEvents(own), clutch?.laidOn ?? null, waits, today),
    clutch: clutch && {
      id: clutch.id,
      name: clutch.name,
      day: daysBetween(clutch.laidOn, clutch.hatchedOn ?? today),
      eggs: clutch.eggs,
      hatchedOn: clutch.hatchedOn,
    },
    cautions: cautionsOfPairing(genetics, pairing),
  };
}

/** Males as the board shows them. */
export async function boardMales(
  work: Work,
  entries: readonly Pick<BoardEntry, 'id'>[],
): Promise<BoardMale[]> {
  const ids = entries.map(({ id }) => id);
  const animals = new Map((await summariesOf(work, ids)).map((animal) => [animal.id, animal]));
  const states = await statesOf(work, ids);
  const since = addDays(work.today, -TREND_DAYS);
  const weights = groupBy(await weightsSince(work, { ids, since }), ({ animalId }) => animalId);
  const females = [...states.values()].flatMap(({ board }) => board?.use?.withId ?? []);
  const numbers = new Map((await namedAnimals(work, females)).map(({ id, number }) => [id, number]));
  return ids.map((id): BoardMale => {
    const { number, name, label, massG } = animals.get(id)!;
    const { group, readiness, use } = states.get(id)!.board!;
    const { females: count, locks, lastLockOn, withId } = use!;
    return {
      id,
      group: group as MaleGroup,
      number,
      name,
      label,
      massG,
      weights: (weights.get(id) ?? []).map(({ on, massG: g }) => ({ on, massG: g })),
      females: count,
      locks,
      lastLockOn,
      with: withId === null ? null : { id: withId, number: numbers.get(withId) ?? '' },
      readiness,
    };
  });
}

/** Mates on the board with which an animal's young would be inbred over the bound; none while that is not found out. */
export async function relatedMates(work: Work, id: string): Promise<RelatedMate[]> {
  const { sex } = await findAnimal(work, id);
  if (sex === 'unknown') return [];
  const { rules } = await rulesOf(work);
  const mates = (await boardInOrder(work, sex === 'female' ? 'male' : 'female')).map((mate) => mate.id);
  const genetics = await geneticsSoon(work);
  const kin =
    mates.length === 0 ? [] : await askSoon(work, genetics, { ask: 'kinship', animal: id, kin: mates });
  return (kin ?? []).flatMap(({ kinship }, i) =>
    kinship > rules.inbreedingBound + 1e-9 ? [{ id: mates[i]!, inbreeding: kinship }] : [],
  );
}
