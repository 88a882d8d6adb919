import { randomUUID } from 'node:crypto';
import type {
  AnimalSummary,
  LadderStepInput,
  LadderView,
  ManyMoves,
  NewLadder,
  NewRack,
  RackChange,
  RackSummary,
  RackView,
} from '@karyotome/contract';
import { Op } from 'sequelize';
import { changeRow } from '../../db/change-rows.ts';
import { type Actor, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../refusal.ts';
import { summariesOf } from '../animals/animals.service.ts';
import { moveIn } from '../bin/bin.service.ts';
import { groupBy } from '../../group-by.ts';
import { insertRecord } from '../records/insert-record.ts';
import { voidRecord } from '../records/records.service.ts';
import { heatZones } from './heat.service.ts';
import { statesOf } from '../states/animal-states.ts';
import type { StoredState } from '../states/compute-state.ts';
import {
  animalsBeyond,
  countAnimalsInRack,
  highestStepInUse,
  ladderRows,
  ladderSteps,
  namedRacks,
  rackRows,
  tubsOfRack,
} from './enclosures.queries.ts';
import { placeForRack, saveWalkOrder } from './walk-order.repository.ts';

export async function listLadders(work: Work): Promise<LadderView[]> {
  const steps = groupBy(await ladderSteps(work), ({ ladderId }) => ladderId);
  const rows = await ladderRows(work);
  return rows.map((row) => ({
    ...row,
    steps: (steps.get(row.id) ?? []).map(({ ladderId: _, ladder: _name, ...step }) => step),
  }));
}

async function writeSteps(work: Work, ladderId: string, input: NewLadder): Promise<void> {
  await work.models.ladderSteps.bulkCreate(
    input.steps.map((step, position) => ({
      collectionId: work.actor.collectionId,
      ladderId,
      position,
      ...step,
      mealsBefore: step.mealsBefore ?? null,
    })),
    { transaction: work.transaction },
  );
}

export async function createLadder(work: Work, input: NewLadder): Promise<{ id: string }> {
  const id = randomUUID();
  await work.models.ladders.create(
    { collectionId: work.actor.collectionId, id, name: input.name, version: 1 },
    { transaction: work.transaction },
  );
  await writeSteps(work, id, input);
  return { id };
}

/** Replaces a ladder's steps. Steps that racks stand for must stay. */
export async function changeLadder(
  work: Work,
  id: string,
  input: NewLadder,
  version: number,
): Promise<{ id: string; version: number }> {
  const { collectionId } = work.actor;
  const changed = await changeRow(
    work,
    work.models.ladders,
    'This ladder',
    { id, version },
    { name: input.name },
  );
  const [highest] = await highestStepInUse(work, { id });
  if (highest?.position != null && highest.position >= input.steps.length) {
    throw invalidField('steps', `needs at least ${highest.position + 1}: racks stand for the later ones`);
  }
  await work.models.ladderSteps.destroy({
    where: { collectionId, ladderId: id },
    transaction: work.transaction,
  });
  await writeSteps(work, id, input);
  return changed;
}

export async function createRack(work: Work, input: NewRack): Promise<{ id: string }> {
  const { collectionId } = work.actor;
  const step = await work.models.ladderSteps.findOne({
    where: { collectionId, ladderId: input.ladderId, position: input.stepPosition },
    transaction: work.transaction,
  });
  if (!step) throw invalidField('stepPosition', 'names no step of a ladder of this collection');
  const id = randomUUID();
  const walkOrder = await placeForRack(work, input.room);
  await work.models.racks.create(
    { collectionId, id, ...input, walkOrder, version: 1 },
    { transaction: work.transaction },
  );
  const places = placesOf(input).map((place) => ({ collectionId, id: randomUUID(), rackId: id, ...place }));
  await work.models.tubs.bulkCreate(places, { transaction: work.transaction });
  return { id };
}

/** Several at once, in their order: all of them or none. */
export async function createRacks(work: Work, inputs: readonly NewRack[]): Promise<{ ids: string[] }> {
  const ids: string[] = [];
  for (const input of inputs) ids.push((await createRack(work, input)).id);
  return { ids };
}

/** Puts the racks into the order in which they are walked past. */
export async function orderRacks(work: Work, ids: string[]): Promise<{ ids: string[] }> {
  const racks = new Set((await namedRacks(work)).map(({ id }) => id));
  if (ids.length !== racks.size || ids.some((id) => !racks.has(id))) {
    throw new Refusal('conflict', 'Racks were added or removed meanwhile. Put them in order again.');
  }
  await saveWalkOrder(work, ids);
  return { ids };
}

/** Puts an empty rack into the bin, with its tubs and heat zones. */
export async function deleteRack(work: Work<Actor>, id: string, reason: string): Promise<{ id: string }> {
  const { collectionId } = work.actor;
  const [housed] = await countAnimalsInRack(work, { id });
  if (housed!.count > 0)
    throw new Refusal('conflict', `${housed!.count} animals live in this rack: move them first.`);
  const row = await work.models.racks.findOne({
    where: { collectionId, id },
    transaction: work.transaction,
  });
  if (!row) throw notFound('This rack');
  const { name, room } = row.get();
  return moveIn(work, { kind: 'rack', id, animalId: null, number: name, name: room, reason });
}

/** Gives a rack another name, room, or size. Places that fall away must be empty. */
export async function changeRack(
  work: Work,
  id: string,
  input: RackChange,
  version: number,
): Promise<{ id: string; version: number }> {
  const { collectionId } = work.actor;
  const changed = await changeRow(work, work.models.racks, 'This rack', { id, version }, input);
  const housed = await animalsBeyond(work, { id, levels: input.levels, tubsPerLevel: input.tubsPerLevel });
  if (housed.length > 0) {
    const field = housed.some(({ level }) => level > input.levels) ? 'levels' : 'tubsPerLevel';
    const who = housed.map(({ number, level, slot }) => `${number} (${level}-${slot})`).join(', ');
    throw invalidField(field, `would take the tubs of ${who}: move them first`, 'housed');
  }
  await work.models.tubs.destroy({
    where: {
      collectionId,
      rackId: id,
      [Op.or]: { level: { [Op.gt]: input.levels }, slot: { [Op.gt]: input.tubsPerLevel } },
    },
    transaction: work.transaction,
  });
  const known = await work.models.tubs.findAll({
    where: { collectionId, rackId: id },
    transaction: work.transaction,
  });
  const has = new Set(known.map((tub) => `${tub.get().level}-${tub.get().slot}`));
  const added = placesOf(input).filter(({ level, slot }) => !has.has(`${level}-${slot}`));
  await work.models.tubs.bulkCreate(
    added.map((place) => ({ collectionId, id: randomUUID(), rackId: id, ...place })),
    { transaction: work.transaction },
  );
  return changed;
}

function placesOf({ levels, tubsPerLevel }: Pick<RackChange, 'levels' | 'tubsPerLevel'>) {
  return Array.from({ length: levels * tubsPerLevel }, (_, i) => ({
    level: Math.floor(i / tubsPerLevel) + 1,
    slot: (i % tubsPerLevel) + 1,
  }));
}

/** The racks in walking order, without what stands in them. @param id - this one alone */
export async function listRacks(work: Work, id: string | null = null): Promise<RackSummary[]> {
  const zones = groupBy(await heatZones(work), ({ rackId }) => rackId);
  return (await rackRows(work, id)).map((rack) => ({ ...rack, zones: zones.get(rack.id) ?? [] }));
}

/** One rack with its tubs, who lives in them, and what is advised. */
export async function viewRack(work: Work, id: string): Promise<RackView> {
  const [rack] = await listRacks(work, id);
  if (!rack) throw notFound('This rack');
  const tubs = await tubsOfRack(work, { id });
  const living = tubs.flatMap(({ animals }) => animals);
  const animals = new Map((await summariesOf(work, living)).map((animal) => [animal.id, animal]));
  const states = await statesOf(work, living);
  return {
    ...rack,
    tubs: tubs.map(({ animals: own, ...tub }) => ({
      ...tub,
      animals: own.map((one) => inPlace(states.get(one)!, animals.get(one)!, rack.step)),
    })),
  };
}

function inPlace(
  { advice, shed, concerns, cleanedOn, isCleaningDue }: StoredState,
  { id, number, label, sex, massG }: AnimalSummary,
  step: LadderStepInput,
): RackView['tubs'][number]['animals'][number] {
  return {
    id,
    number,
    label,
    sex,
    massG,
    verdict: advice.verdict,
    inShed: shed !== null,
    fit: massG === null ? null : fitOf(massG, step),
    concern: concerns.length > 0,
    lastCleaned: cleanedOn,
    cleanDue: isCleaningDue,
  };
}

const fitOf = (massG: number, { minG, maxG }: LadderStepInput): 'light' | 'fits' | 'heavy' =>
  massG < minG ? 'light' : maxG !== null && massG > maxG ? 'heavy' : 'fits';

/** Many moves as one act: all of them or none. Two that change places do so at once. */
export async function moveMany(
  work: Work<Actor>,
  { moves, reason, on }: ManyMoves,
): Promise<{ ids: string[] }> {
  const ids: string[] = [];
  for (const { animalId, toTubId } of moves) {
    try {
      const { id } = await insertRecord(work, animalId, { kind: 'move', on, body: { toTubId, reason } });
      ids.push(id);
    } catch (error) {
      if (error instanceof Refusal) throw invalidField(`moves.${ids.length}`, error.message);
      throw error;
    }
  }
  return { ids };
}

/** Takes several records back at once, such as the moves of one act. The last comes first: each goes back to where it was. */
export async function takeBackMany(work: Work<Actor>, ids: readonly string[]): Promise<void> {
  for (const id of ids.toReversed()) await voidRecord(work, id, 'Undone');
}
