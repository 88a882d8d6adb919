import { addDays } from '@karyotome/core';
import type { Actor, Work } from '../db/work.ts';
import { insertRecord } from '../domain/records/insert-record.ts';
import { Chance } from './chance.ts';
import type { Made } from './made.ts';
import { FARM, KEEPER, LOOK_ALIKE, NEEDED, SLIPS, STORIES, type PlannedClutch } from './plan.ts';
import type { DemoSales } from './sales.ts';
import { breed, shownGenes, type Truth } from './truth.ts';

/** One that left its egg, and its place in its clutch. */
interface Hatched {
  readonly plan: PlannedClutch;
  readonly place: number;
  readonly id: string;
  readonly number: string;
  readonly hatchedOn: string;
  readonly sire: Made;
  readonly dam: Made;
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

/** What hatchlings are, and what is recorded of them first. */
export class Hatchlings {
  private readonly work: Work<Actor>;
  private readonly chance: Chance;
  private readonly sales: DemoSales;

  constructor(work: Work<Actor>, chance: Chance, sales: DemoSales) {
    this.work = work;
    this.sales = sales;
    this.chance = chance;
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

  async add({ plan, place, id, number, hatchedOn, sire, dam }: Hatched): Promise<Made> {
    const { chance } = this;
    const sex = chance.isTrue(0.5) ? 'male' : 'female';
    const truth = this.drawYoung(`${plan.id}-${place}`, sire, dam, sex);
    const isTwin = plan.hasTwins === true && place >= plan.hatched - 2;
    const fate = plan.fates[place] ?? 'undecided';
    if (plan.isIdentified) await this.identify(plan, place, id, hatchedOn, sex, truth);
    if (isTwin)
      await insertRecord(this.work, id, {
        kind: 'note',
        on: hatchedOn,
        body: { text: 'Twin: two from one egg, half size.' },
      });
    await this.sales.decide(id, fate, hatchedOn);
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

  private async identify(
    plan: PlannedClutch,
    place: number,
    id: string,
    hatchedOn: string,
    sex: 'female' | 'male',
    truth: Truth,
  ): Promise<void> {
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
}
