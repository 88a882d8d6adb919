import type { SettingUp, SetUpProposal } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { type Actor, type Work } from '../../db/work.ts';
import { invalidField, Refusal } from '../../refusal.ts';
import { freeTubs, placedTubs } from '../../domain/enclosures/enclosures.queries.ts';
import { groupBy } from '../../group-by.ts';
import { findClutch } from '../../domain/season/clutches.repository.ts';
import { insertRecord } from '../../domain/records/insert-record.ts';
import { livingMates } from './bench.queries.ts';

/** The first meal is offered about a week after the first shed. Common practice, no source. */
const FIRST_MEAL_DAYS = 7;
/** The first shed comes about this long after hatching. Common practice, no source. */
const FIRST_SHED_DAYS = 8;

/**
 * A tub for each one of a clutch that has none: the free places of a first step, in walking order, and as many as can be in
 * one rack.
 */
export async function proposeSetUp(work: Work, clutchId: string): Promise<SetUpProposal> {
  await findClutch(work, clutchId);
  const mates = await livingMates(work, { clutchId });
  const withoutTub = mates.filter(({ tubId }) => tubId === null);
  const free = await freeTubs(work);
  const lowest = Math.min(...free.map(({ step }) => step));
  const first = free.filter(({ step }) => step === lowest);
  const racks = [...groupBy(first, ({ rackId }) => rackId).values()];
  const roomy = racks
    .filter((list) => list.length >= withoutTub.length)
    .toSorted((a, b) => a.length - b.length)[0];
  const places = roomy ?? racks.flat();
  const hatchedOn = mates[0]?.hatchedOn ?? work.today;
  const shedOn = mates
    .map((mate) => mate.shedOn)
    .filter((day) => day !== null)
    .toSorted()
    .at(-1);
  return {
    places: withoutTub.map(({ id, number }, i) => ({
      animalId: id,
      number,
      tubId: places[i]?.tubId ?? null,
    })),
    tubs: [...places, ...free.filter((tub) => !places.includes(tub))].map(
      ({ tubId, room, rack, level, slot }) => ({ tubId, room, rack, level, slot }),
    ),
    firstMealOn: addDays(shedOn ?? addDays(hatchedOn, FIRST_SHED_DAYS), FIRST_MEAL_DAYS),
  };
}

const wordsOf = (tub: { rack: string; level: number; slot: number } | undefined): string =>
  tub ? `${tub.rack} ${tub.level}-${tub.slot}` : 'a tub';

const clash = (field: string, what: string, message: string): Refusal =>
  new Refusal('conflict', `${what} ${message}.`, [{ field, code: 'taken', message }]);

/** Moves a clutch into its tubs in one act, and starts its plan for feeding. All of it, or nothing. */
export async function setUp(
  work: Work<Actor>,
  clutchId: string,
  { on, substrate, places, plan }: SettingUp,
): Promise<{ ids: string[] }> {
  const mates = new Map((await livingMates(work, { clutchId })).map((mate) => [mate.id, mate]));
  const tubs = new Map((await placedTubs(work)).map((tub) => [tub.tubId, tub]));
  const free = new Set((await freeTubs(work)).map((tub) => tub.tubId));
  const ids: string[] = [];
  for (const [i, { animalId, tubId }] of places.entries()) {
    const mate = mates.get(animalId);
    if (!mate) throw invalidField(`places.${i}.animalId`, 'is not of this clutch');
    // Somebody else has set up meanwhile: what stands now is said, and nothing of this is done.
    if (mate.tubId !== null)
      throw clash(`places.${i}.animalId`, mate.number, `lives in ${wordsOf(tubs.get(mate.tubId))} already`);
    const tub = tubs.get(tubId);
    if (!tub) throw invalidField(`places.${i}.tubId`, 'names no tub of this collection');
    if (!free.has(tubId))
      throw clash(`places.${i}.tubId`, wordsOf(tub), `is taken by now: choose another for ${mate.number}`);
    const move = await insertRecord(work, animalId, {
      kind: 'move',
      on,
      body: { toTubId: tubId, reason: 'Set up in its own tub', substrate },
    });
    ids.push(move.id);
    if (plan) ids.push((await insertRecord(work, animalId, { kind: 'plan', on, body: { ...plan } })).id);
  }
  return { ids };
}
