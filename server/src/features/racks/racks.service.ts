import { randomUUID } from 'node:crypto';
import type { LadderView, NewLadder, NewRack, RackView } from '@karyotome/contract';
import { inShed } from '@karyotome/core';
import { literal } from 'sequelize';
import { select, type Work } from '../../db/work.ts';
import { invalidField, notFound, Refusal } from '../../http/problems.ts';
import { adviseFor, loadEnclosures } from '../animals/enclosure-advice.ts';
import { listAnimals } from '../animals/animals.service.ts';
import { recentRecords, toHistory } from '../records/history.ts';

export async function listLadders(work: Work): Promise<LadderView[]> {
  const { ladders } = await loadEnclosures(work);
  const rows = await select<{ id: string; name: string; version: number; racks: number }>(
    work,
    `select l.id, l.name, l.version,
            (select count(*)::int from racks r where r.collection_id = l.collection_id and r.ladder_id = l.id) as racks
       from ladders l where l.collection_id = :collectionId order by l.name`,
  );
  return rows.map((row) => ({ ...row, steps: ladders.get(row.id)?.steps ?? [] }));
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
  const where = { collectionId, id, version };
  const [changed] = await work.models.ladders.update(
    { name: input.name, version: literal('version + 1') } as never,
    { where, transaction: work.transaction },
  );
  if (changed === 0) {
    const exists = await work.models.ladders.count({
      where: { collectionId, id },
      transaction: work.transaction,
    });
    throw exists
      ? new Refusal('stale', 'The ladder was changed in the meantime. Reload to see it.')
      : notFound('This ladder');
  }
  const [highest] = await select<{ position: number | null }>(
    work,
    'select max(step_position)::int as position from racks where collection_id = :collectionId and ladder_id = :id',
    { id },
  );
  if (highest?.position != null && highest.position >= input.steps.length) {
    throw invalidField('steps', `needs at least ${highest.position + 1}: racks stand for the later ones`);
  }
  await work.models.ladderSteps.destroy({
    where: { collectionId, ladderId: id },
    transaction: work.transaction,
  });
  await writeSteps(work, id, input);
  return { id, version: version + 1 };
}

export async function createRack(work: Work, input: NewRack): Promise<{ id: string }> {
  const { collectionId } = work.actor;
  const step = await work.models.ladderSteps.findOne({
    where: { collectionId, ladderId: input.ladderId, position: input.stepPosition },
    transaction: work.transaction,
  });
  if (!step) throw invalidField('stepPosition', 'names no step of a ladder of this collection');
  const id = randomUUID();
  await work.models.racks.create(
    { collectionId, id, ...input, version: 1 },
    { transaction: work.transaction },
  );
  const places = Array.from({ length: input.levels * input.tubsPerLevel }, (_, i) => ({
    collectionId,
    id: randomUUID(),
    rackId: id,
    level: Math.floor(i / input.tubsPerLevel) + 1,
    slot: (i % input.tubsPerLevel) + 1,
  }));
  await work.models.tubs.bulkCreate(places, { transaction: work.transaction });
  return { id };
}

export async function deleteRack(work: Work, id: string): Promise<void> {
  const { collectionId } = work.actor;
  const [housed] = await select<{ count: number }>(
    work,
    `select count(*)::int as count from animals a join tubs t on t.collection_id = a.collection_id and t.id = a.tub_id
      where a.collection_id = :collectionId and t.rack_id = :id`,
    { id },
  );
  if (housed!.count > 0)
    throw new Refusal('conflict', `${housed!.count} animals live in this rack: move them first.`);
  const deleted = await work.models.racks.destroy({
    where: { collectionId, id },
    transaction: work.transaction,
  });
  if (deleted === 0) throw notFound('This rack');
}

/** The room as it stands: every rack with its tubs, who lives in them, and what is advised. */
export async function listRacks(work: Work): Promise<RackView[]> {
  const { collectionId } = work.actor;
  const racks = await work.models.racks.findAll({
    where: { collectionId },
    order: [
      ['room', 'asc'],
      ['stepPosition', 'asc'],
      ['name', 'asc'],
    ],
    transaction: work.transaction,
  });
  const tubs = await select<{ id: string; rackId: string; level: number; slot: number }>(
    work,
    'select id, rack_id as "rackId", level, slot from tubs where collection_id = :collectionId order by level, slot',
  );
  const enclosures = await loadEnclosures(work);
  const records = await recentRecords(work);
  const housed = (await listAnimals(work)).filter((animal) => animal.tub !== null);
  return racks.map((model) => {
    const { collectionId: _, ...rack } = model.get();
    return {
      ...rack,
      step: enclosures.ladders.get(rack.ladderId)!.steps[rack.stepPosition]!,
      tubs: tubs
        .filter((tub) => tub.rackId === rack.id)
        .map(({ id, level, slot }) => ({
          id,
          level,
          slot,
          animals: housed
            .filter((animal) => animal.tub!.tubId === id)
            .map((animal) => {
              const history = toHistory(animal.hatchedOn, records.get(animal.id) ?? []);
              return {
                id: animal.id,
                number: animal.number,
                label: animal.label,
                sex: animal.sex,
                massG: animal.massG,
                verdict: adviseFor(enclosures, id, history, work.today).verdict,
                inShed: inShed(history.sheds, work.today) !== null,
              };
            }),
        })),
    };
  });
}
