import { randomUUID } from 'node:crypto';
import { newRecord, validate, type NewRack, type NewRecord } from '@karyotome/contract';
import { addDays, LADDER_PRESETS } from '@karyotome/core';
import type { Actor, Work } from '../db/work.ts';
import { placedTubs } from '../domain/enclosures/enclosures.queries.ts';
import { groupBy } from '../group-by.ts';
import { createRack, listRacks } from '../domain/enclosures/racks.service.ts';
import { insertRecord } from '../domain/records/insert-record.ts';
import type { Chance } from './chance.ts';
import { liveRecords } from './life.ts';
import type { Made } from './made.ts';
import { FASTING, ROOM } from './plan.ts';

/** Days of husbandry kept for animals that came in grown. */
const KEPT_DAYS = 400;
const STEPS = LADDER_PRESETS[0]!.steps;

/** The racks, and the months that animals lived in them. */
export class Housing {
  /** Free tubs by step of the ladder. */
  private readonly free = new Map<number, string[]>();
  private readonly housed = new Map<string, { tub: string; step: number }>();
  private readonly work: Work<Actor>;
  private readonly today: string;
  private readonly chance: Chance;

  constructor(work: Work<Actor>, today: string, chance: Chance) {
    this.work = work;
    this.today = today;
    this.chance = chance;
  }

  private ago(days: number): string {
    return addDays(this.today, -days);
  }

  private async ladder(): Promise<string> {
    const ladder = (await this.work.models.ladders.findOne({
      where: { collectionId: this.work.actor.collectionId, name: LADDER_PRESETS[0]!.name },
      transaction: this.work.transaction,
    }))!.get();
    return ladder.id;
  }

  async addRacks(racks: readonly Omit<NewRack, 'room' | 'ladderId'>[]): Promise<void> {
    const ladderId = await this.ladder();
    for (const rack of racks) await createRack(this.work, { ...rack, room: ROOM, ladderId });
    const tubsOf = groupBy(await placedTubs(this.work), ({ rackId }) => rackId);
    for (const { id, name, stepPosition } of await listRacks(this.work)) {
      if (!racks.some((rack) => rack.name === name)) continue;
      const known = this.free.get(stepPosition) ?? [];
      this.free.set(stepPosition, [...known, ...(tubsOf.get(id) ?? []).map(({ tubId }) => tubId)]);
    }
  }

  /** Months of records, and the way up the ladder as the weights allowed it. */
  async live(animal: Made): Promise<void> {
    const from = animal.hatchedOn > this.ago(KEPT_DAYS * 2) ? animal.hatchedOn : this.ago(KEPT_DAYS);
    const until = animal.isGone ? addDays(animal.hatchedOn, 190) : this.today;
    const fastingDays = FASTING[animal.number] ?? 0;
    const records = liveRecords({ ...animal, from, until, fastingDays }, this.chance);
    await this.writeRecords(
      animal.id,
      records.filter((record) => record.on < until || record.kind !== 'feeding'),
    );
    if (!animal.isGone) await this.house(animal, records, from);
  }

  async writeRecords(animalId: string, records: readonly NewRecord[]): Promise<void> {
    const { collectionId, accountId } = this.work.actor;
    const rows = records.map((record) => {
      const checked = validate(newRecord, record);
      if (!checked.ok) throw new Error(`A demo record is not valid: ${JSON.stringify(checked.problems)}`);
      const { kind, on, body } = checked.value;
      return {
        collectionId,
        id: randomUUID(),
        animalId,
        kind,
        onDay: on,
        body: { ...body },
        authorId: accountId,
      };
    });
    await this.work.models.records.bulkCreate(rows, { transaction: this.work.transaction });
  }

  private async house(animal: Made, records: readonly NewRecord[], from: string): Promise<void> {
    const weights = records.flatMap((record) =>
      record.kind === 'weight' ? [{ on: record.on, massG: record.body.massG }] : [],
    );
    let step = -1;
    for (const { on, massG } of weights) {
      const due = this.stepFor(massG, step, animal, on);
      if (due === step) continue;
      await this.move(
        animal,
        due,
        step < 0 ? addDays(from, from === animal.hatchedOn ? 9 : 0) : on,
        step < 0 ? 'Set up in its own tub' : `${massG} g`,
      );
      step = due;
    }
  }

  /** The step an animal lives on after a weighing. Some stories wait for somebody to notice. */
  private stepFor(massG: number, current: number, animal: Made, on: string): number {
    const fitting = STEPS.findIndex((step) => step.maxG === null || massG <= step.maxG);
    const wanted = Math.max(current, fitting);
    if (current < 0) return wanted;
    if (animal.story === 'moved-too-early') return on >= this.ago(60) ? Math.max(current, 1) : 0;
    if (animal.story === 'shy') return Math.min(wanted, 1);
    const waits = animal.story === 'too-big' || animal.story === 'bold' || animal.story === 'in-blue';
    return waits && on > this.ago(45) ? current : wanted;
  }

  private async move(animal: Made, step: number, on: string, reason: string): Promise<void> {
    const tub = this.free.get(step)?.shift();
    if (!tub) return;
    const day =
      on > this.today ? this.today : animal.story === 'moved-too-early' && step > 0 ? this.ago(23) : on;
    await insertRecord(this.work, animal.id, { kind: 'move', on: day, body: { toTubId: tub, reason } });
    // The place it left is free again.
    const left = this.housed.get(animal.id);
    if (left) this.free.get(left.step)!.push(left.tub);
    this.housed.set(animal.id, { tub, step });
  }
}
