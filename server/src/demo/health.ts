import type { NewRecord } from '@karyotome/contract';
import { addDays } from '@karyotome/core';
import { rackOfTub, residentsOf } from '../domain/health/health.queries.ts';
import { insertRecord } from '../domain/records/insert-record.ts';
import type { Actor, Work } from '../db/work.ts';
import type { Living } from './living.ts';

const VETERINARIAN = 'Dr. Ines Vold';

/** One is treated for a burn, and one is kept apart since mites were seen on it: its whole rack is looked through. */
export async function playHealth(work: Work<Actor>, living: readonly Living[]): Promise<void> {
  const housed = living.filter(({ tubId, massG }) => tubId !== null && massG > 150);
  const record = (id: string, entry: NewRecord): Promise<unknown> => insertRecord(work, id, entry);
  const ago = (days: number): string => addDays(work.today, -days);
  const treated = housed[5];
  if (treated) await playTreatment(record, treated.id, ago);
  const infested = housed[18];
  const rackId = infested && (await rackOfTub(work, infested.tubId!));
  if (!infested || !rackId) return;
  await record(infested.id, { kind: 'health-check', on: ago(8), body: { signs: ['mites'] } });
  const body = { until: addDays(work.today, 22), reason: 'signs' } as const;
  await record(infested.id, { kind: 'quarantine', on: ago(8), body });
  for (const { id } of await residentsOf(work, [rackId]))
    if (id !== infested.id) await record(id, { kind: 'health-check', on: ago(8), body: { signs: [] } });
  await record(infested.id, { kind: 'health-check', on: ago(2), body: { signs: [] } });
}

async function playTreatment(
  record: (id: string, entry: NewRecord) => Promise<unknown>,
  id: string,
  ago: (days: number) => string,
): Promise<void> {
  await record(id, { kind: 'health-check', on: ago(6), body: { signs: ['burn'] } });
  await record(id, {
    kind: 'vet-visit',
    on: ago(5),
    body: {
      veterinarian: VETERINARIAN,
      words: 'Superficial burn on the belly, clean. Dress it daily, keep it on paper, come back if it opens.',
    },
  });
  const { id: courseId } = (await record(id, {
    kind: 'treatment',
    on: ago(5),
    body: {
      what: 'Wound dressing',
      dose: 'thin layer on the burn, as shown',
      orderedBy: VETERINARIAN,
      from: ago(5),
      everyDays: 1,
      timesADay: 1,
      doses: 14,
      weighEveryDays: 7,
    },
  })) as { id: string };
  for (let ordinal = 1; ordinal <= 5; ordinal++)
    await record(id, { kind: 'dose', on: ago(6 - ordinal), body: { courseId, ordinal, isGiven: true } });
  await record(id, { kind: 'health-check', on: ago(1), body: { signs: ['burn'], words: 'dry, smaller' } });
}
