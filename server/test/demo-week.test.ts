import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { NewRecord, TodayLine } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { loadDemo } from '../src/demo/demo.ts';
import { FARM } from '../src/demo/plan.ts';
import { machineToday, reading, writing, type Actor, type Work } from '../src/db/work.ts';
import { addStock } from '../src/domain/husbandry/freezer.service.ts';
import { addSurfaceCheck } from '../src/domain/enclosures/heat.service.ts';
import { miteWatches } from '../src/domain/health/mite-watches.service.ts';
import { insertRecord } from '../src/domain/records/insert-record.ts';
import { viewToday } from '../src/domain/today/today.service.ts';
import { startTestApp, type TestApp } from './test-app.ts';

let app: TestApp;
const dataDir = mkdtempSync(join(tmpdir(), 'karyotome-week-'));
beforeAll(async () => {
  app = await startTestApp();
  await loadDemo(app.database, app.files, { dataDir, signingSecret: 'only-for-tests' });
});
afterAll(async () => {
  await app.close();
  rmSync(dataDir, { recursive: true, force: true });
});

const TASKS_OF = { read: reading, write: writing } as const;

/** Something read or done as the demo's owner, on a day of this week. */
async function on<T>(
  today: string,
  how: keyof typeof TASKS_OF,
  act: (work: Work<Actor>) => Promise<T>,
): Promise<T> {
  const account = (await app.database.models.accounts.findOne({ where: { email: FARM.email } }))!.get();
  const { collectionId } = (await app.database.models.memberships.findOne({
    where: { accountId: account.id },
  }))!.get();
  const actor = { accountId: account.id, name: account.name, collectionId, role: 'owner' as const };
  return TASKS_OF[how](app.database, actor, (work) => act({ ...work, today }));
}

/** What the line's own button would record; null where it opens another place instead. */
function buttonOf(line: TodayLine, day: string): NewRecord | null {
  const { kind, code, preset, advice, animal } = line;
  if (kind === 'dose' || kind === 'health') return healthButtonOf(line, day);
  if (kind === 'meal') {
    const { species, size, state, step } = preset!;
    const body = { species, size, state, taken: true, ...(step ? { step } : {}) };
    return { kind: 'feeding', on: day, body };
  }
  if (kind === 'weigh')
    return { kind: 'weight', on: day, body: { massG: Math.round((animal!.massG ?? 60) * 1.02) } };
  if (kind === 'clean') return { kind: 'care', on: day, body: { act: 'cleaned' } };
  // What three soaks did not loosen, the veterinarian has taken off.
  if (code === 'retained-shed') return { kind: 'care', on: day, body: { act: 'caps-checked' } };
  if (code === 'soak-due') return { kind: 'care', on: day, body: { act: 'soaked' } };
  if (kind === 'shed' || kind === 'first-shed') {
    return { kind: 'shed', on: day, body: { stage: 'shed', complete: true, eyeCaps: true } };
  }
  if (kind === 'sex')
    return { kind: 'sex', on: day, body: { sex: 'female', method: 'popped', sure: 'certain', by: 'Maren' } };
  const free = advice?.freeTubs[0];
  if (kind === 'move' && free) {
    return { kind: 'move', on: day, body: { toTubId: free.tubId, reason: code } };
  }
  return null;
}
function healthButtonOf(line: TodayLine, day: string): NewRecord {
  if (line.code === 'dose-due') {
    const { courseId, ordinal } = line.facts;
    return { kind: 'dose', on: day, body: { courseId, ordinal, isGiven: true } };
  }
  if (line.code === 'quarantine-over')
    return { kind: 'quarantine', on: day, body: { until: null, reason: line.facts.reason } };
  return { kind: 'health-check', on: day, body: { signs: [] } };
}

/** Lines that stand for a state, or lead to a place of their own: they stay until that changes. */
const STANDS: readonly TodayLine['kind'][] = [
  'eggs',
  'season',
  'climate',
  'identify',
  'settle',
  'concern',
  'move',
  'shed',
  'stock',
];

const counts: Record<string, number> = {};

/** Looks through all of a rack that are to be looked through for mites. */
async function lookThrough(work: Work<Actor>, rackId: string): Promise<void> {
  const watch = (await miteWatches(work)).find(({ id }) => id === rackId);
  for (const id of watch?.toCheck ?? [])
    await insertRecord(work, id, { kind: 'health-check', on: work.today, body: { signs: [] } });
}

/** Presses the line's button, where it has one. */
async function press(line: TodayLine, day: string): Promise<void> {
  await on(day, 'write', async (work) => {
    const record = line.animal ? buttonOf(line, day) : null;
    if (record) await insertRecord(work, line.animal!.id, record);
    else if (line.rack) await lookThrough(work, line.rack.id);
    else if (line.zone)
      await addSurfaceCheck(work, line.zone.id, { on: day, warmC: 32.8, coolC: 27.8, probeFixed: true });
    else if (line.kind === 'stock') {
      const prey = line.key.replace('-stock', '');
      await addStock(work, { prey, kind: 'receipt', quantity: 200, on: day });
    } else return;
    counts[line.kind] = (counts[line.kind] ?? 0) + 1;
  });
}

test('a week of the demo farm is run from Today alone: what has a button is done, and gone', async () => {
  for (let day = machineToday(), i = 0; i < 7; i++, day = addDays(day, 1)) {
    let { lines } = await on(day, 'read', (work) => viewToday(work));
    // One act can call for the next: after a shed the tub is cleaned.
    for (let pass = 0; pass < 2; pass++) {
      for (const line of lines) await press(line, day);
      lines = (await on(day, 'read', (work) => viewToday(work))).lines;
    }
    const left = lines.filter(
      (line) => !STANDS.includes(line.kind) || (line.kind === 'shed' && buttonOf(line, day)),
    );
    expect(left.map((line) => `${line.animal?.number}: ${line.code}`)).toEqual([]);
  }
  // Every kind of daily work came up within the week.
  for (const kind of ['meal', 'weigh', 'clean', 'shed', 'sex', 'move', 'heat', 'stock', 'dose', 'health']) {
    expect(counts[kind], kind).toBeGreaterThan(0);
  }
  expect(counts['meal']).toBeGreaterThan(30);
}, 120_000);
