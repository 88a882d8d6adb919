import { randomUUID } from 'node:crypto';
import { newRecord, validate, type NewRack, type NewRecord, type RackView } from '@karyotome/contract';
import { addDays, LADDER_PRESETS } from '@karyotome/core';
import { createAnimal } from '../domain/animals/animals.service.ts';
import { createClutch, hatch } from '../domain/season/clutches.service.ts';
import { createPairing } from '../domain/season/pairings.service.ts';
import { addPicture, storePicture } from '../domain/pictures/pictures.service.ts';
import { publish } from '../features/publications/publications.ts';
import { createRack, listRacks } from '../domain/enclosures/racks.service.ts';
import { insertRecord } from '../domain/records/insert-record.ts';
import { createCollection, firstPassword } from '../features/session/first-start.ts';
import { hashPassword } from '../domain/accounts/session.service.ts';
import { MACHINE_ZONE, type Actor, type Database, type Work } from '../db/work.ts';
import { playHusbandry } from './husbandry.ts';
import { addOwnMarkers, recordFirstIdentifications, playOpinions } from './bench.ts';
import { BENCH_FOUNDERS, BENCH_RACKS, EARLIER, FIRST_SHED_AGO, WAITING } from './bench-plan.ts';
import { Chance } from './chance.ts';
import { drawSnake } from './drawing.ts';
import { liveRecords, type Story } from './life.ts';
import { earlierC, SEASON_FOUNDERS, SEASON_RACK, STILL_LYING } from './season-plan.ts';
import { DemoSeason } from './season.ts';
import {
  CLUTCHES,
  FARM,
  FASTING,
  FOUNDERS,
  KEEPER,
  LOOK_ALIKE,
  NEEDED,
  RACKS,
  ROOM,
  SLIPS,
  STORIES,
  type ParentChoice,
  type PlannedClutch,
} from './plan.ts';
import { breed, shownGenes, truthOf, type Truth } from './truth.ts';

interface Made {
  readonly id: string;
  readonly number: string;
  readonly sex: 'female' | 'male';
  readonly truth: Truth;
  readonly hatchedOn: string;
  readonly adultG: number;
  readonly birthG: number;
  readonly story: Story;
  readonly isGone: boolean;
}

/** Days of husbandry kept for animals that came in grown. */
const KEPT_DAYS = 400;
const STEPS = LADDER_PRESETS[0]!.steps;

/**
 * Fills an empty database with the demo farm. Animals, pairings, clutches, identifications, moves and pages go through
 * the services, so that every rule holds; the thousands of meals, weights and sheds are checked against the same schema
 * and written in bulk.
 */
export async function loadDemo(database: Database, dataDir: string): Promise<void> {
  const password = await firstPassword(dataDir, FARM.email);
  const keeperHash = await hashPassword(password);
  await createCollection(
    database,
    { email: FARM.email, name: FARM.owner, password },
    FARM.collection,
    async (work) => {
      await work.models.collections.update(
        { timeZone: MACHINE_ZONE },
        { where: { id: work.actor.collectionId }, transaction: work.transaction },
      );
      await addKeeper(work, keeperHash);
      await new Farm(work, dataDir, work.today).build();
    },
  );
}

async function addKeeper({ models, transaction, actor }: Work<Actor>, passwordHash: string): Promise<void> {
  const id = randomUUID();
  await models.accounts.create({ id, email: KEEPER.email, name: KEEPER.name, passwordHash }, { transaction });
  await models.memberships.create(
    { collectionId: actor.collectionId, accountId: id, role: 'keeper' },
    { transaction },
  );
}

/** What goes into the record for what shows: mostly just that. */
function recordedAs(clutch: string, place: number, shown: string) {
  const slip = SLIPS[`${clutch}-${place}`];
  if (slip) {
    const genes = shown === 'Normal' ? slip : `${slip} ${shown}`;
    return { genes, sure: 'certain' as const, by: KEEPER.name };
  }
  const alike = LOOK_ALIKE[clutch];
  const genes = alike && shown.includes(alike.seen) ? shown.replace(alike.seen, alike.recorded) : shown;
  return { genes, sure: 'certain' as const, by: FARM.owner };
}

class Farm {
  private readonly chance = new Chance(20_260_401);
  private readonly byNumber = new Map<string, Made>();
  private readonly byClutch = new Map<string, Made[]>();
  private readonly free = new Map<number, string[]>();
  private readonly housed = new Map<string, { tub: string; step: number }>();
  private readonly season: DemoSeason;
  private ladderId = '';
  private readonly work: Work<Actor>;
  private readonly dataDir: string;
  private readonly today: string;

  constructor(work: Work<Actor>, dataDir: string, today: string) {
    this.work = work;
    this.season = new DemoSeason({ ...work, today }, (number) => this.byNumber.get(number)!.id);
    this.dataDir = dataDir;
    this.today = today;
  }

  private ago(days: number): string {
    return addDays(this.today, -days);
  }

  /** The same work on an earlier day: records made by it carry that day. */
  private on(day: string): Work<Actor> {
    return { ...this.work, today: day };
  }

  async build(): Promise<void> {
    await this.buildRoom();
    await this.season.buildIncubators();
    for (const founder of FOUNDERS) await this.addFounder(founder);
    for (const clutch of CLUTCHES) await this.addClutch(clutch);
    const everybody = [...this.byNumber.values(), ...[...this.byClutch.values()].flat()];
    for (const animal of everybody) await this.live(animal);
    await this.drawPictures();
    await this.publishSome();
    for (const founder of SEASON_FOUNDERS) {
      await this.addFounder(founder);
      await this.live(this.byNumber.get(founder.number)!);
    }
    await this.season.playSeason();
    await this.fillBench();
    await playHusbandry(this.work);
  }

  /** A pair with six genes, their young of last year, and this year's in its box. */
  private async fillBench(): Promise<void> {
    await this.addRacks(BENCH_RACKS);
    for (const founder of BENCH_FOUNDERS) {
      await this.addFounder(founder);
      await this.live(this.byNumber.get(founder.number)!);
    }
    await this.addClutch(EARLIER);
    for (const animal of this.byClutch.get(EARLIER.id)!) await this.live(animal);
    await this.addClutch(WAITING);
    const waiting = this.byClutch.get(WAITING.id)!;
    for (const { id, birthG, hatchedOn } of waiting) {
      await this.writeRecords(id, [
        { kind: 'weight', on: hatchedOn, body: { massG: birthG } },
        {
          kind: 'shed',
          on: this.ago(FIRST_SHED_AGO),
          body: { stage: 'shed', complete: true, eyeCaps: true },
        },
      ]);
    }
    await this.draw([
      ...BENCH_FOUNDERS.map(({ number }) => this.byNumber.get(number)!),
      ...this.byClutch.get(EARLIER.id)!,
      ...waiting,
      ...SEASON_FOUNDERS.map(({ number }) => this.byNumber.get(number)!),
    ]);
    await addOwnMarkers(this.work);
    await recordFirstIdentifications(this.work);
    await playOpinions(this.work, waiting[0]!.id);
  }

  private async buildRoom(): Promise<void> {
    const ladder = (await this.work.models.ladders.findOne({
      where: { collectionId: this.work.actor.collectionId, name: LADDER_PRESETS[0]!.name },
      transaction: this.work.transaction,
    }))!.get();
    this.ladderId = ladder.id;
    await this.addRacks([...RACKS, SEASON_RACK]);
  }

  private async addRacks(racks: readonly Omit<NewRack, 'room' | 'ladderId'>[]): Promise<void> {
    for (const rack of racks) await createRack(this.work, { ...rack, room: ROOM, ladderId: this.ladderId });
    const made: RackView[] = await listRacks(this.work);
    for (const { name, stepPosition, tubs } of made) {
      if (!racks.some((rack) => rack.name === name)) continue;
      const known = this.free.get(stepPosition) ?? [];
      this.free.set(stepPosition, [...known, ...tubs.map((tub) => tub.id)]);
    }
  }

  private async addFounder(founder: (typeof FOUNDERS)[number]): Promise<void> {
    const cameIn = this.ago(Math.min(founder.ageDays - 120, 1200));
    const hatchedOn = this.ago(founder.ageDays);
    const { number, name, sex, genes } = founder;
    const { id } = await createAnimal(this.on(cameIn), {
      number,
      name,
      sex,
      genes,
      hatchedOn,
      status: 'breeder',
      identifiedBy: 'the breeder it came from',
    });
    const truth = truthOf(founder.truth ?? genes, sex);
    this.byNumber.set(number, {
      id,
      number,
      sex,
      truth,
      hatchedOn,
      adultG: founder.adultG,
      birthG: 66,
      story: null,
      isGone: false,
    });
  }

  private choose(choice: ParentChoice): Made {
    if (typeof choice === 'string') return this.byNumber.get(choice)!;
    const found = this.byClutch
      .get(choice.clutch)!
      .find((a) => a.sex === choice.sex && !a.isGone && shownGenes(a.truth).includes(choice.shows));
    if (!found)
      throw new Error(
        `The demo has no ${choice.sex} ${choice.shows} in clutch ${choice.clutch}: choose another seed.`,
      );
    return found;
  }

  private async addClutch(plan: PlannedClutch): Promise<void> {
    const dam = this.choose(plan.dam);
    const sires = plan.sires.map(({ choice, weight }) => ({ made: this.choose(choice), weight }));
    const startedOn = this.ago(plan.pairedAgo);
    const laidOn = this.ago(plan.laidAgo);
    const lying = STILL_LYING[plan.id];
    const pairing = await createPairing(this.on(startedOn), {
      season: Number(laidOn.slice(0, 4)),
      damId: dam.id,
      sires: sires.map(({ made, weight }) => ({ animalId: made.id, weight })),
      startedOn,
    });
    const clutch = await createClutch(this.on(laidOn), {
      pairingId: pairing.id,
      laidOn,
      eggs: plan.eggs,
      slugs: plan.slugs,
      incubationC: earlierC(plan.laidAgo),
      incubatorId: lying ? this.season.incubator(lying.incubator) : null,
    });
    await this.season.courtOf(
      plan,
      pairing.id,
      sires.map(({ made }) => made.id),
    );
    await this.season.box(clutch.id, lying?.eggs ?? []);
    for (const look of lying?.eggChecks ?? []) await this.season.look(clutch.id, look);
    if (plan.hatchedAgo === null) return;
    await this.season.eggsOf(plan, clutch.id);
    const hatchedOn = this.ago(plan.hatchedAgo);
    const { ids, numbers } = await hatch(
      this.on(hatchedOn),
      clutch.id,
      { hatchedOn, hatched: plan.hatched },
      1,
    );
    const young: Made[] = [];
    for (const [place, id] of ids.entries()) {
      const sire = plan.bySecond?.includes(place) ? sires[1]!.made : sires[0]!.made;
      young.push(await this.addHatchling(plan, place, id, numbers[place]!, hatchedOn, sire, dam));
    }
    this.byClutch.set(plan.id, young);
  }

  private drawYoung(name: string, sire: Made, dam: Made, sex: 'female' | 'male'): Truth {
    const drawn = breed(sire.truth, dam.truth, sex, this.chance);
    const needed = NEEDED[name];
    if (!needed) return drawn;
    // From dice of its own, so that all that is drawn later stays as it is.
    const again = new Chance(7);
    for (let tries = 0; tries < 1000; tries++) {
      const truth = breed(sire.truth, dam.truth, sex, again);
      if (shownGenes(truth).includes(needed)) return truth;
    }
    throw new Error(`The parents of ${name} cannot give ${needed}.`);
  }

  private async addHatchling(
    plan: PlannedClutch,
    place: number,
    id: string,
    number: string,
    hatchedOn: string,
    sire: Made,
    dam: Made,
  ): Promise<Made> {
    const { chance } = this;
    const sex = chance.isTrue(0.5) ? 'male' : 'female';
    const truth = this.drawYoung(`${plan.id}-${place}`, sire, dam, sex);
    const isTwin = plan.hasTwins === true && place >= plan.hatched - 2;
    const fate = plan.fates[place] ?? 'undecided';
    if (plan.isIdentified) {
      const seenOn = addDays(hatchedOn, 14);
      await insertRecord(this.work, id, {
        kind: 'sex',
        on: addDays(hatchedOn, 3),
        body: { sex, method: 'popped', sure: sex === 'male' ? 'certain' : 'probable', by: KEEPER.name },
      });
      await insertRecord(this.work, id, {
        kind: 'identification',
        on: seenOn,
        body: recordedAs(plan.id, place, shownGenes(truth)),
      });
    }
    if (isTwin)
      await insertRecord(this.work, id, {
        kind: 'note',
        on: hatchedOn,
        body: { text: 'Twin: two from one egg, half size.' },
      });
    await this.work.models.animals.update(
      { status: fate },
      { where: { id }, transaction: this.work.transaction },
    );
    return {
      id,
      number,
      sex,
      truth,
      hatchedOn,
      adultG: sex === 'female' ? chance.between(1600, 2150) : chance.between(820, 1120),
      birthG: isTwin ? chance.whole(23, 27) : chance.whole(61, 76),
      story: STORIES[`${plan.id}-${place}`] ?? null,
      isGone: fate === 'sold' || fate === 'died',
    };
  }

  /** Months of records, and the way up the ladder as the weights allowed it. */
  private async live(animal: Made): Promise<void> {
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

  private async writeRecords(animalId: string, records: readonly NewRecord[]): Promise<void> {
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

  private async drawPictures(): Promise<void> {
    const wanted = [
      ...this.byNumber.values(),
      ...['a', 'e', 'g', 'h'].flatMap((id) => this.byClutch.get(id) ?? []),
    ];
    await this.draw(wanted);
  }

  private async draw(wanted: readonly Made[]): Promise<void> {
    for (const animal of wanted) {
      const png = await drawSnake(animal.truth, animal.number, this.chance);
      await addPicture(this.work, { animalId: animal.id }, await storePicture(this.dataDir, png), {
        caption: animal.number,
        isDrawing: true,
      });
    }
  }

  private async publishSome(): Promise<void> {
    const listed = [this.byClutch.get('h')![0]!, this.byClutch.get('h')![1]!, this.byClutch.get('e')![1]!];
    for (const [index, animal] of listed.entries()) {
      await publish(
        this.work,
        animal.id,
        index === 0 ? 'Eats frozen-thawed without hesitation, calm to handle.' : null,
      );
    }
  }
}
