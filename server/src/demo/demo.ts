import { randomUUID } from 'node:crypto';
import { addDays } from '@karyotome/core';
import { createAnimal } from '../domain/animals/animals.service.ts';
import { createClutch, hatch } from '../domain/season/clutches.service.ts';
import { createPairing } from '../domain/season/pairings.service.ts';
import { addPicture, storePicture } from '../domain/pictures/pictures.service.ts';
import { publish } from '../features/publications/publications.ts';

import { createCollection } from '../domain/collection/create-collection.ts';
import { demoPassword } from './demo-password.ts';
import { hashPassword } from '../domain/accounts/session.service.ts';
import { composeToSign } from '../domain/statements/compose-statement.ts';
import { issueStatement } from '../domain/statements/statements.service.ts';
import { MACHINE_ZONE, reading, writing, type Actor, type Database, type Work } from '../db/work.ts';
import { playHusbandry } from './husbandry.ts';
import { addOwnMarkers, recordFirstIdentifications, playOpinions } from './bench.ts';
import { BENCH_FOUNDERS, BENCH_RACKS, EARLIER, FIRST_SHED_AGO, WAITING } from './bench-plan.ts';
import { Chance } from './chance.ts';
import { drawSnake } from './drawing.ts';
import { Hatchlings } from './hatchlings.ts';
import { Housing } from './housing.ts';
import type { Made } from './made.ts';
import { earlierC, SEASON_FOUNDERS, SEASON_RACK, STILL_LYING } from './season-plan.ts';
import { playProjects } from './projects.ts';
import { DemoSales } from './sales.ts';
import { DemoSeason } from './season.ts';
import type { Config } from '../config.ts';
import type { FileStore } from '../files/file-store.ts';
import { CLUTCHES, FARM, FOUNDERS, KEEPER, RACKS, type ParentChoice, type PlannedClutch } from './plan.ts';
import { shownGenes, truthOf } from './truth.ts';

/**
 * Fills an empty database with the demo farm. Animals, pairings, clutches, identifications, moves and pages go through
 * the services, so that every rule holds; the thousands of meals, weights and sheds are checked against the same schema
 * and written in bulk.
 */
export async function loadDemo(
  database: Database,
  files: FileStore,
  { dataDir, signingSecret }: Pick<Config, 'dataDir' | 'signingSecret'>,
): Promise<void> {
  const password = await demoPassword(dataDir, FARM.email);
  const keeperHash = await hashPassword(password);
  let published: readonly string[] = [];
  const actor = await createCollection(
    database,
    { email: FARM.email, name: FARM.owner, password },
    FARM.collection,
    async (work) => {
      await work.models.collections.update(
        { timeZone: MACHINE_ZONE },
        { where: { id: work.actor.collectionId }, transaction: work.transaction },
      );
      await addKeeper(work, keeperHash);
      const farm = new Farm(work, files, work.today);
      await farm.build();
      published = farm.published.map(({ id }) => id);
    },
  );
  for (const animalId of published) {
    const composition = await reading(database, actor, (work) => composeToSign(work, files, animalId));
    await writing(database, actor, (work) => issueStatement(work, signingSecret, composition));
  }
}

async function addKeeper({ models, transaction, actor }: Work<Actor>, passwordHash: string): Promise<void> {
  const id = randomUUID();
  await models.accounts.create({ id, email: KEEPER.email, name: KEEPER.name, passwordHash }, { transaction });
  await models.memberships.create(
    { collectionId: actor.collectionId, accountId: id, role: 'keeper' },
    { transaction },
  );
}

class Farm {
  private readonly chance = new Chance(20_260_401);
  private readonly byNumber = new Map<string, Made>();
  private readonly byClutch = new Map<string, Made[]>();
  private readonly season: DemoSeason;
  private readonly housing: Housing;
  private readonly sales: DemoSales;
  private readonly hatchlings: Hatchlings;
  private readonly work: Work<Actor>;
  private readonly files: FileStore;
  private readonly today: string;

  constructor(work: Work<Actor>, files: FileStore, today: string) {
    this.work = work;
    this.season = new DemoSeason({ ...work, today }, (number) => this.byNumber.get(number)!.id);
    this.housing = new Housing(work, today, this.chance);
    this.sales = new DemoSales(work);
    this.hatchlings = new Hatchlings(work, this.chance, this.sales);
    this.files = files;
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
    await this.housing.addRacks([...RACKS, SEASON_RACK]);
    await this.sales.addBuyers();
    await this.season.buildIncubators();
    await this.season.watchRoom();
    for (const founder of FOUNDERS) await this.addFounder(founder);
    for (const clutch of CLUTCHES) await this.addClutch(clutch);
    const everybody = [...this.byNumber.values(), ...[...this.byClutch.values()].flat()];
    for (const animal of everybody) await this.housing.live(animal);
    await this.drawPictures();
    await this.publishSome();
    for (const founder of SEASON_FOUNDERS) {
      await this.addFounder(founder);
      await this.housing.live(this.byNumber.get(founder.number)!);
    }
    await this.season.playSeason();
    await this.fillBench();
    await playHusbandry(this.work);
    await this.sales.addWishes();
    await playProjects(this.work, {
      idOf: (number) => this.byNumber.get(number)!.id,
      heldBack: this.choose({ clutch: 'a', sex: 'male', shows: 'Ultramel' }).id,
    });
  }

  /** A pair with six genes, their young of last year, and this year's in its box. */
  private async fillBench(): Promise<void> {
    await this.housing.addRacks(BENCH_RACKS);
    for (const founder of BENCH_FOUNDERS) {
      await this.addFounder(founder);
      await this.housing.live(this.byNumber.get(founder.number)!);
    }
    await this.addClutch(EARLIER);
    for (const animal of this.byClutch.get(EARLIER.id)!) await this.housing.live(animal);
    await this.addClutch(WAITING);
    const waiting = this.byClutch.get(WAITING.id)!;
    for (const { id, birthG, hatchedOn } of waiting) {
      await this.housing.writeRecords(id, [
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
      young.push(
        await this.hatchlings.add({ plan, place, id, number: numbers[place]!, hatchedOn, sire, dam }),
      );
    }
    this.byClutch.set(plan.id, young);
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
      await addPicture(this.work, { animalId: animal.id }, await storePicture(this.files, png), {
        caption: animal.number,
        isDrawing: true,
      });
    }
  }

  get published(): readonly Made[] {
    return [this.byClutch.get('h')![0]!, this.byClutch.get('h')![1]!, this.byClutch.get('e')![1]!];
  }

  private async publishSome(): Promise<void> {
    for (const [index, animal] of this.published.entries()) {
      await publish(
        this.work,
        animal.id,
        index === 0 ? 'Eats frozen-thawed without hesitation, calm to handle.' : null,
      );
    }
  }
}
