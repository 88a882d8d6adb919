import { FEMALE_GROUPS, MALE_GROUPS, type FemaleGroup, type MaleGroup } from '@karyotome/contract';
import {
  daysBetween,
  femaleReadiness,
  forecastSeason,
  learnWaits,
  maleReadiness,
  malesWith,
  seasonOf,
  type KeptAnimal,
  type MaleUse,
  type Readiness,
  type SeasonRules,
  type SeasonStage,
} from '@karyotome/core';
import type { KeptPairing } from '../states/kept-animals.queries.ts';

/** A pairing without eggs goes on for so long, across the turn of the season too. Common practice, no source. */
export const OPEN_DAYS = 240;
/** Eggs that lie longer were forgotten in the book. */
const LONGEST_INCUBATION_DAYS = 100;
/** Lighter than this share of the floor, an animal is not grown enough to be on the board. */
const NEARLY_GROWN = 0.7;

/** Where a group stands among those of its sex. */
export const boardOrder = (group: FemaleGroup | MaleGroup): number =>
  Math.max(FEMALE_GROUPS.indexOf(group as FemaleGroup), MALE_GROUPS.indexOf(group as MaleGroup));

/** How an animal stands in the season. */
export interface BoardPlace {
  readonly group: FemaleGroup | MaleGroup;
  readonly readiness: Readiness;
  /** Her pairing of the season; null before the first introduction, and for males. */
  readonly pairingId: string | null;
  /** How he is used; null for females. */
  readonly use: (MaleUse & { readonly withId: string | null }) | null;
}

/** Where an animal stands on the season board; null for one that is not on it. */
export function boardPlace(
  animal: KeptAnimal,
  pairings: readonly KeptPairing[],
  rules: SeasonRules,
  today: string,
): BoardPlace | null {
  if (animal.sex === 'unknown') return null;
  const season = seasonOf(today, rules);
  const ofSeason = pairings.filter((pairing) => pairing.season === season || goesOn(pairing, today));
  const floorG = animal.sex === 'female' ? rules.olderFemaleFloorG : rules.maleFloorG;
  const isGrown = ofSeason.length > 0 || (animal.weights.at(-1)?.massG ?? 0) >= floorG * NEARLY_GROWN;
  if (!isGrown) return null;
  return animal.sex === 'female'
    ? femalePlace(animal, pairings, ofSeason, rules, today)
    : malePlace(animal, ofSeason, rules, today);
}

/** Of an earlier season, but not over: no eggs yet, or eggs that have not hatched. */
function goesOn({ startedOn, clutches }: KeptPairing, today: string): boolean {
  const clutch = clutches.at(-1);
  return clutch
    ? clutch.hatchedOn === null && daysBetween(clutch.laidOn, today) <= LONGEST_INCUBATION_DAYS
    : daysBetween(startedOn, today) <= OPEN_DAYS;
}

const GROUP_OF_STAGE = {
  together: 'together',
  'pre-lay': 'gravid',
  ovulated: 'gravid',
  apart: 'apart',
} as const satisfies Partial<Record<SeasonStage, FemaleGroup>>;
/** A stage does not turn on how long things take. */
const NO_WAITS = learnWaits([]);

function femalePlace(
  { id, history }: KeptAnimal,
  pairings: readonly KeptPairing[],
  ofSeason: readonly KeptPairing[],
  rules: SeasonRules,
  today: string,
): BoardPlace {
  const own = pairings.filter(({ damId }) => damId === id);
  const current = own.findLast((pairing) => ofSeason.includes(pairing)) ?? null;
  // Her clutch of this season is not what she has to recover from before this season.
  const before = own.findLast((pairing) => pairing.clutches.length > 0 && pairing !== current);
  const readiness = femaleReadiness(history, before?.clutches.at(-1)?.laidOn ?? null, rules, today);
  const clutch = current?.clutches.at(-1);
  const { stage } = forecastSeason(current?.events ?? [], clutch?.laidOn ?? null, NO_WAITS, today);
  const open = readiness.ready ? 'ready' : 'not-yet';
  const group =
    stage === 'laid'
      ? clutch!.hatchedOn === null
        ? 'laid'
        : open
      : stage === 'open'
        ? open
        : GROUP_OF_STAGE[stage];
  return { group, readiness, pairingId: current?.id ?? null, use: null };
}

function malePlace(
  { id, history }: KeptAnimal,
  ofSeason: readonly KeptPairing[],
  rules: SeasonRules,
  today: string,
): BoardPlace {
  const use = maleUse(id, ofSeason);
  const readiness = maleReadiness(history, use, rules, today);
  const group = use.females > 0 ? 'in-season' : readiness.ready ? 'ready' : 'resting';
  return { group, readiness, pairingId: null, use };
}

function maleUse(id: string, ofSeason: readonly KeptPairing[]): NonNullable<BoardPlace['use']> {
  const put = ofSeason.filter(({ events }) => events.some(({ sireId }) => sireId === id));
  const locks = put
    .flatMap(({ events }) => events.filter(({ kind, sireId }) => kind === 'lock' && sireId === id))
    .map(({ on }) => on);
  const withHim = put.findLast(
    ({ clutches, events }) => clutches.length === 0 && malesWith(events).includes(id),
  );
  return {
    females: put.length,
    locks: locks.length,
    lastLockOn: locks.toSorted().at(-1) ?? null,
    withId: withHim?.damId ?? null,
    isOut: withHim !== undefined,
  };
}

/** Whether a dam is between ovulation and laying. */
export const isGravid = (damId: string, pairings: readonly KeptPairing[], today: string): boolean =>
  pairings.some(
    ({ damId: dam, startedOn, clutches, events }) =>
      dam === damId &&
      clutches.length === 0 &&
      daysBetween(startedOn, today) < OPEN_DAYS &&
      events.some(({ kind }) => kind === 'ovulation' || kind === 'pre-lay-shed'),
  );
