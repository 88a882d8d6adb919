import { addDays, simulatedReading, steadyClimate, type SteadyClimate } from '@karyotome/core';
import { nowMs } from '../clock.ts';
import type { Actor, Work } from '../db/work.ts';
import { createClutch } from '../domain/season/clutches.service.ts';
import { addEggEvents, changeBox } from '../domain/incubation/box.service.ts';
import { eggsOf } from '../domain/incubation/eggs.repository.ts';
import { createPlace } from '../domain/climate/climate.service.ts';
import { introduce } from '../domain/season/introductions.ts';
import { addSeasonEvent } from '../domain/season/season-events.ts';
import { Chance } from './chance.ts';
import { ROOM, type PlannedClutch } from './plan.ts';
import {
  INCUBATORS,
  WATCHED_ROOM,
  SEASON,
  type PlannedEgg,
  type PlannedEggCheck,
  type PlannedSeason,
} from './season-plan.ts';

const HOUR_MS = 3_600_000;

/** Plays the demo's seasons through the services, day by day: the one that runs, and what was noted of those before. */
export class DemoSeason {
  private readonly chance = new Chance(20_260_402);
  private readonly incubators = new Map<string, string>();
  private readonly work: Work<Actor>;
  private readonly idOf: (number: string) => string;

  constructor(work: Work<Actor>, idOf: (number: string) => string) {
    this.work = work;
    this.idOf = idOf;
  }

  private on(day: string): Work<Actor> {
    return { ...this.work, today: day };
  }
  private ago(days: number): string {
    return addDays(this.work.today, -days);
  }

  incubator(name: string): string {
    return this.incubators.get(name)!;
  }

  /** The incubators with what their sensors said, or what was read off them twice a day. */
  async buildIncubators(): Promise<void> {
    for (const { name, setC, sensor, keptDays } of INCUBATORS) {
      const { id } = await createPlace(this.work, 'incubator', {
        name,
        setC,
        lowC: setC - 1.4,
        highC: setC + 1,
        lowHumidity: 80,
        silentAfterHours: 24,
        sensor,
      });
      this.incubators.set(name, id);
      await this.keepReadings(id, { setC }, { byHand: sensor === 'none', days: keptDays });
    }
  }

  /** The room that the racks stand in, with what its sensor said. */
  async watchRoom(): Promise<void> {
    const { keptDays, ...limits } = WATCHED_ROOM;
    const room = { name: ROOM, ...limits, silentAfterHours: 6, sensor: 'simulated' as const };
    const { id } = await createPlace(this.work, 'room', room);
    await this.keepReadings(id, steadyClimate(limits), { byHand: false, days: keptDays });
  }

  private async keepReadings(
    placeId: string,
    around: SteadyClimate,
    { byHand, days }: { readonly byHand: boolean; readonly days: number },
  ): Promise<void> {
    const stepMs = (byHand ? 12 : 1) * HOUR_MS;
    const lastMs = nowMs() - (byHand ? 31 : 1) * HOUR_MS;
    const rows = Array.from({ length: (days * 24 * HOUR_MS) / stepMs }, (_, i) => {
      const { celsius, humidity } = simulatedReading(lastMs - i * stepMs, around);
      return {
        collectionId: this.work.actor.collectionId,
        placeId,
        at: new Date(lastMs - i * stepMs),
        source: byHand ? ('hand' as const) : ('simulated' as const),
        celsius: byHand ? Math.round(celsius * 10) / 10 : celsius,
        humidity: byHand ? Math.round(humidity ?? 0) : humidity,
      };
    });
    await this.work.models.readings.bulkCreate(rows, { transaction: this.work.transaction });
  }

  /** What was noted of a pairing of an earlier season, from its first night to the shed before the eggs. */
  async courtOf(plan: PlannedClutch, pairingId: string, sireIds: readonly string[]): Promise<void> {
    const { chance } = this;
    const shedAgo = plan.laidAgo + chance.whole(27, 40);
    const ovulatedAgo = shedAgo + chance.whole(17, 22);
    for (const [i, sireId] of sireIds.entries()) {
      const from = plan.pairedAgo - i * 9;
      await this.event(pairingId, 'lock', from - chance.whole(1, 2), sireId);
      await this.event(pairingId, 'separation', from - chance.whole(3, 5), sireId);
    }
    await this.event(pairingId, 'ovulation', ovulatedAgo);
    await this.event(pairingId, 'pre-lay-shed', shedAgo);
  }

  private async event(
    pairingId: string,
    kind: Parameters<typeof addSeasonEvent>[2]['kind'],
    ago: number,
    sireId: string | null = null,
  ): Promise<void> {
    const on = this.ago(ago);
    await addSeasonEvent(this.on(on), pairingId, { kind, on, sireId });
  }

  /** What was seen of the eggs of an earlier clutch until its young were out. */
  async eggsOf(plan: PlannedClutch, clutchId: string): Promise<void> {
    const { laidAgo, hatchedAgo, hatched } = plan;
    const withYoung = hatched - (plan.hasTwins ? 1 : 0);
    const good = plan.eggs - plan.slugs;
    const pipAgo = hatchedAgo! + this.chance.whole(1, 3);
    await this.look(clutchId, ['check', laidAgo - 15, 0, ['veins']]);
    await this.look(clutchId, ['check', laidAgo - 33, 0, []]);
    for (let egg = withYoung + 1; egg <= good; egg++) {
      await this.look(clutchId, ['check', laidAgo - 40, egg, ['collapse', 'mould']]);
      await this.look(clutchId, ['died', laidAgo - 42, egg]);
    }
    for (let egg = 1; egg <= withYoung; egg++) {
      await this.look(clutchId, ['pip', egg < 3 ? pipAgo : hatchedAgo! + 1, egg]);
      await this.look(clutchId, ['out', hatchedAgo!, egg], plan.hasTwins && egg === withYoung ? 2 : 1);
    }
  }

  async look(clutchId: string, [kind, ago, egg, signs]: PlannedEggCheck, young = 1): Promise<void> {
    const on = this.ago(ago);
    const eggs = await eggsOf(this.work, clutchId);
    await addEggEvents(this.on(on), clutchId, {
      kind,
      on,
      eggIds: egg === 0 ? null : [eggs[egg - 1]!.id],
      ...(kind === 'check' ? { signs: [...signs] } : {}),
      ...(kind === 'out' ? { young } : {}),
    });
  }

  /** Lays the eggs of a clutch as the keeper found them. */
  async box(clutchId: string, planned: readonly PlannedEgg[]): Promise<void> {
    if (planned.length === 0) return;
    const eggs = await eggsOf(this.work, clutchId);
    const box = eggs.map(({ id, x, y }, i) => ({
      id,
      x: Math.min(92, Math.max(8, x + this.chance.between(-1, 1))),
      y: Math.min(90, Math.max(10, y + this.chance.between(-5, 5))),
      verdict: planned[i]!.verdict ?? ('good' as const),
      massG: planned[i]!.massG,
      stuck: planned[i]!.stuck ?? null,
      marked: true,
    }));
    await changeBox(this.work, clutchId, { eggs: box }, 1);
  }

  /** The season that runs, in the order of its days, so that a male leaves one female before he comes to the next. */
  async playSeason(): Promise<void> {
    const days = SEASON.flatMap((plan) => plan.events.map((event) => ({ plan, event })));
    const pairings = new Map<PlannedSeason, string>();
    for (const { plan, event } of days.toSorted((a, b) => b.event[1] - a.event[1])) {
      const [kind, ago, male] = event;
      if (kind !== 'introduction') {
        await this.event(pairings.get(plan)!, kind, ago, male ? this.idOf(male) : null);
        continue;
      }
      const on = this.ago(ago);
      const damId = this.idOf(plan.dam);
      const { pairingId } = await introduce(this.on(on), { damId, sireId: this.idOf(male!), on });
      pairings.set(plan, pairingId);
    }
    for (const plan of SEASON) if (plan.laid) await this.lay(pairings.get(plan)!, plan.laid);
  }

  private async lay(pairingId: string, laid: NonNullable<PlannedSeason['laid']>): Promise<void> {
    const laidOn = this.ago(laid.ago);
    const { id } = await createClutch(this.on(laidOn), {
      pairingId,
      laidOn,
      eggs: laid.count,
      slugs: laid.slugs,
      incubatorId: this.incubator(laid.incubator),
    });
    await this.box(id, laid.eggs);
    for (const look of laid.eggChecks) await this.look(id, look);
  }
}
