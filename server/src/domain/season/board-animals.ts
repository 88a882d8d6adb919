import type { AnimalSummary, BoardFemale, BoardMale } from '@karyotome/contract';
import {
  daysBetween,
  femaleFloor,
  femaleReadiness,
  forecastSeason,
  malesWith,
  maleReadiness,
  type History,
  type MaleUse,
  type SeasonRules,
  type Waits,
} from '@karyotome/core';
import type { Genetics } from '../genetics/genetics.service.ts';
import { cautionsOfPairing } from './pairing-cautions.ts';
import { toSeasonEvents, type seasonEvents } from './season-events.ts';
import type { PairingOfSeason } from './season-state.queries.ts';

/** What the animals of the board are shown from. */
export interface BoardState {
  readonly today: string;
  readonly rules: SeasonRules;
  readonly waits: Waits;
  readonly genetics: Genetics;
  /** All pairings, the oldest first, and those of this season. */
  readonly pairings: readonly PairingOfSeason[];
  readonly ofSeason: readonly PairingOfSeason[];
  readonly events: Awaited<ReturnType<typeof seasonEvents>>;
  /** By male. */
  readonly uses: ReadonlyMap<string, Use>;
  readonly historyOf: (animalId: string) => History;
  /** Empty for an animal that is gone. */
  readonly numberOf: (animalId: string) => string;
}

/** A female as the board shows her. */
export function boardFemale(state: BoardState, animal: AnimalSummary): BoardFemale {
  const { pairings, ofSeason, rules, today } = state;
  const own = pairings.filter((pairing) => pairing.damId === animal.id);
  const current = own.findLast((pairing) => ofSeason.includes(pairing)) ?? null;
  const last = own.findLast((pairing) => pairing.clutch !== null)?.clutch ?? null;
  // Her clutch of this season is not what she has to recover from before this season.
  const before = own.findLast((pairing) => pairing.clutch !== null && pairing !== current)?.clutch ?? null;
  const { id, number, name, label, massG, hatchedOn } = animal;
  const history = state.historyOf(animal.id);
  return {
    id,
    number,
    name,
    label,
    massG,
    lastMealOn: history.feedings.findLast(({ taken }) => taken)?.on ?? null,
    hatchedOn,
    floorG: femaleFloor(hatchedOn, rules, today).floorG,
    lastClutch: last && { id: last.id, name: last.name, laidOn: last.laidOn, eggs: last.eggs },
    readiness: femaleReadiness(history, (current ? before : last)?.laidOn ?? null, rules, today),
    pairing: current && boardPairing(state, current),
  };
}

function boardPairing(
  { events, waits, genetics, numberOf, today }: BoardState,
  pairing: PairingOfSeason,
): BoardFemale['pairing'] {
  const { id, version, clutch } = pairing;
  const own = events.get(id) ?? [];
  return {
    id,
    version,
    sires: pairing.sires
      .map((sire) => ({ ...sire, number: numberOf(sire.id) }))
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

/** A male as the board shows him. */
export function boardMale(state: BoardState, animal: AnimalSummary): BoardMale {
  const use = state.uses.get(animal.id) ?? { females: 0, locks: 0, lastLockOn: null, withId: null };
  const history = state.historyOf(animal.id);
  const asUse: MaleUse = { ...use, isOut: use.withId !== null };
  return {
    id: animal.id,
    number: animal.number,
    name: animal.name,
    label: animal.label,
    massG: animal.massG,
    weights: history.weights.map(({ on, massG }) => ({ on, massG })),
    ...use,
    readiness: maleReadiness(history, asUse, state.rules, state.today),
  };
}

/** How a male is used in a season. */
export type Use = Omit<MaleUse, 'isOut'> & { withId: string | null };

export function malesUses(
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
