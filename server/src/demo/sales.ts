import { addDays, RESERVATION_DAYS, type AnimalStatus } from '@karyotome/core';
import type { Actor, Work } from '../db/work.ts';
import { setOffer } from '../domain/sales/offers.service.ts';
import { addPerson } from '../domain/sales/persons.service.ts';
import { happen } from '../domain/sales/status-events.ts';
import { addWish } from '../domain/waiting/wishes.service.ts';

/* Buyers of the demo farm, and what became of its young: people and prices are made up. */

const BUYERS = [
  { name: 'Ada Fernwood', email: 'ada@fernwood.example', hasAgreed: true },
  { name: 'Bo Larch', email: 'bo@larch.example', hasAgreed: true },
  { name: 'Nell Quarry', email: null, hasAgreed: false },
] as const;

const CURRENCY = 'EUR';
/** Young are offered at about this age, and sold some weeks later. */
const OFFERED_AGE = 90;
const SOLD_AFTER = [24, 61, 38, 110, 17, 75] as const;
const PRICES = [180, 240, 320, 450, 260, 380] as const;
const RESERVED_AGO = 6;

const WISHES = [
  { buyer: 1, must: 'Leopard het Desert Ghost', mustNot: null, sex: 'female', daysAgo: 120 },
  { buyer: 0, must: 'Desert Ghost', mustNot: null, sex: null, daysAgo: 75 },
  { buyer: 2, must: 'Banana', mustNot: 'Leopard', sex: null, daysAgo: 30 },
] as const;

/** Decides upon young of the demo farm, by events as a breeder would record them. */
export class DemoSales {
  private readonly work: Work<Actor>;
  private readonly buyers: string[] = [];
  private turn = 0;

  constructor(work: Work<Actor>) {
    this.work = work;
  }

  async addBuyers(): Promise<void> {
    const consentOn = addDays(this.work.today, -400);
    for (const { name, email, hasAgreed } of BUYERS) {
      const person = { name, email, consentOn: hasAgreed ? consentOn : null };
      this.buyers.push((await addPerson(this.work, person)).id);
    }
  }

  /** Who waits for what. */
  async addWishes(): Promise<void> {
    for (const { buyer, must, mustNot, sex, daysAgo } of WISHES)
      await addWish(this.work, {
        personId: this.buyers[buyer]!,
        must,
        mustNot,
        sex,
        joinedOn: addDays(this.work.today, -daysAgo),
      });
  }

  async decide(animalId: string, fate: AnimalStatus, hatchedOn: string): Promise<void> {
    const { work } = this;
    const turn = this.turn++;
    const by = (day: string): string => (day < work.today ? day : work.today);
    const offeredOn = by(addDays(hatchedOn, OFFERED_AGE));
    const price = PRICES[turn % PRICES.length]!;
    const personId = this.buyers[turn % this.buyers.length]!;
    if (fate === 'undecided') return;
    if (fate === 'held-back' || fate === 'breeder' || fate === 'died') {
      await happen(work, animalId, { kind: fate, on: offeredOn });
      return;
    }
    await happen(work, animalId, { kind: 'offered', on: offeredOn });
    await setOffer(work, animalId, { price, currency: CURRENCY });
    if (fate === 'reserved') {
      const on = by(addDays(work.today, -RESERVED_AGO));
      const details = { personId, deposit: 50, currency: CURRENCY, until: addDays(on, RESERVATION_DAYS) };
      await happen(work, animalId, { kind: 'reserved', on: on < offeredOn ? offeredOn : on, details });
    }
    if (fate === 'sold') {
      const on = by(addDays(offeredOn, SOLD_AFTER[turn % SOLD_AFTER.length]!));
      const details = {
        personId,
        price,
        currency: CURRENCY,
        paidOn: on,
        handedOverOn: on,
        how: 'collected',
      } as const;
      await happen(work, animalId, { kind: 'sold', on, details });
    }
  }
}
