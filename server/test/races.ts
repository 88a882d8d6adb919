import { test } from 'vitest';
import { Maker, type Races } from './race-ground.ts';
import { BREEDING_RACES } from './races-breeding.ts';
import { RECORD_RACES } from './races-records.ts';
import { ROOM_RACES } from './races-room.ts';
import { SALE_RACES } from './races-sales.ts';
import { startTestApp } from './test-app.ts';

/*
 * Two people at once: each pair of acts is sent at the same time. One happens and the other is told what stands now, or both
 * happen in some order; never a 5xx, never a torn state. Run a few times with every test, many times by npm run test:hard.
 */

/** What happens when two do each of these at once. */
const RACES: Races = { ...BREEDING_RACES, ...ROOM_RACES, ...RECORD_RACES, ...SALE_RACES };

/** A collection in which so many turns were played is left for a new one: each turn costs the same. */
const TURNS_PER_COLLECTION = 10;

/** @param times - how often each pair is tried */
export function raceTests(times: number): void {
  test.each(Object.keys(RACES))(
    '%s',
    async (name) => {
      for (let played = 0; played < times; played += TURNS_PER_COLLECTION) {
        const app = await startTestApp();
        try {
          const ground = { app, one: app.owner, two: await app.colleague() };
          const turns = Math.min(TURNS_PER_COLLECTION, times - played);
          for (let turn = 0; turn < turns; turn++) await RACES[name]!(ground, new Maker(ground.one));
        } finally {
          await app.close();
        }
      }
    },
    60_000 + times * 15_000,
  );
}
