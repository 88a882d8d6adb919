import { randomUUID } from 'node:crypto';
import { ROUTES, type NewFeed } from '@karyotome/contract';
import { now } from '../../clock.ts';
import { openRoute } from '../../http/open-route.ts';
import { addDays } from '@karyotome/core';
import { DEFAULT_LOCALE, Reader, type ReaderSettings } from '@karyotome/words';
import { Router } from 'express';
import { ICalCalendar } from 'ical-generator';
import { QueryTypes } from 'sequelize';
import { reading, type Actor, type Database, type Work } from '../../db/work.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { codeFor, digestOf } from '../../domain/accounts/secret-code.ts';
import { notFound, Refusal } from '../../refusal.ts';
import type { RateLimits } from '../../http/rate-limits.ts';
import { dueDays, type DueDay } from './due-days.ts';
import { openFeeds } from './feeds.queries.ts';

const pathOf = (token: string): string => `/api/v1/calendar/${token}.ics`;

/** The secret of an address, which is told once. */
const tokenOf = (id: string, secret: string): string => codeFor('calendar address', id, secret);

async function createFeed(work: Work<Actor>, { name }: NewFeed, secret: string): Promise<{ id: string }> {
  const { collectionId, accountId } = work.actor;
  const id = randomUUID();
  await work.models.calendarFeeds.create(
    { collectionId, id, name, tokenDigest: digestOf(tokenOf(id, secret)), authorId: accountId },
    { transaction: work.transaction },
  );
  return { id };
}

/** From now on the address answers nobody. */
async function revokeFeed(work: Work<Actor>, id: string): Promise<void> {
  const [changed] = await work.models.calendarFeeds.update(
    { revokedAt: now() },
    { where: { collectionId: work.actor.collectionId, id, revokedAt: null }, transaction: work.transaction },
  );
  if (changed === 0) throw notFound('This calendar address');
}

/** Writes due days as a calendar (RFC 5545): all-day events, whose end is the day after the last. */
export function toCalendar(collection: string, days: readonly DueDay[], stamp: Date): string {
  const calendar = new ICalCalendar({
    name: collection,
    prodId: { company: 'Karyotome', product: 'Season', language: 'EN' },
    ttl: 3600,
  });
  // The package writes the day that a moment has in UTC.
  const midnight = (day: string): Date => new Date(`${day}T00:00:00Z`);
  for (const { id, from, to, title, text } of days) {
    calendar.createEvent({
      id: `${id}@karyotome`,
      start: midnight(from),
      end: midnight(addDays(to, 1)),
      allDay: true,
      summary: title,
      description: text,
      stamp,
    });
  }
  return calendar.toString();
}

export function calendarRoutes({ list, write }: Endpoints, secret: string): void {
  list(ROUTES.calendarFeeds, ({ work }) => openFeeds(work));
  // What is kept for a repetition holds no secret: the address is put in when it is answered.
  write(
    ROUTES.addCalendarFeed,
    async ({ work, body }) => ({ ...(await createFeed(work, body, secret)), path: '' }),
    {
      complete: (_asked, _actor, answer) =>
        Promise.resolve({ ...answer, path: pathOf(tokenOf(answer.id, secret)) }),
    },
  );
  write(ROUTES.revokeCalendarFeed, ({ work, id }) => revokeFeed(work, id));
}

/** The feed itself: whoever knows the address may read it, so that calendars can. */
export function publicCalendarRoutes(database: Database, limits: RateLimits): Router {
  const router = Router();
  const guard = limits.guard('calendar', (request) => String(request.params['file']));
  openRoute(router, ROUTES.calendar, guard, async (request, response) => {
    const token = /^([\w.-]{32,100})\.ics$/.exec(String(request.params['file']))?.[1] ?? '';
    const [feed] = await database.sequelize.query<
      { collectionId: string; collection: string } & Omit<ReaderSettings, 'locale'>
    >(
      `select f.collection_id as "collectionId", c.name as collection, c.mass_unit as "massUnit",
              c.temperature_unit as "temperatureUnit" from calendar_feeds f
         join collections c on c.id = f.collection_id
        where f.token_digest = :digest and f.revoked_at is null`,
      { replacements: { digest: digestOf(token) }, type: QueryTypes.SELECT },
    );
    if (!feed) throw new Refusal('not-found', 'This calendar was revoked, or never existed.');
    const { collectionId, collection, ...units } = feed;
    // A calendar program sends no language that its reader would have chosen.
    const reader = new Reader({ ...units, locale: DEFAULT_LOCALE });
    const days = await reading(database, { collectionId }, (work) => dueDays(work, reader));
    response
      .type('text/calendar')
      .set('Cache-Control', 'no-store')
      .send(toCalendar(collection, days, now()));
  });
  return router;
}
