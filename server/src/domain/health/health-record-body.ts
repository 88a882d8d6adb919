import type { NewRecord } from '@karyotome/contract';
import type { AnimalRow, RecordRow } from '../../db/rows.ts';
import type { Work } from '../../db/work.ts';
import { invalidField, Refusal } from '../../refusal.ts';
import { checkLater } from '../records/check-later.ts';
import { courseOf, dosesOf, rackOfTub, type CourseRow } from './health.queries.ts';

type Of<Kind extends NewRecord['kind']> = Extract<NewRecord, { kind: Kind }>;

/**
 * Checks what of a health record needs the database, and adds what it must remember.
 *
 * @param id - that the record will have
 * @param corrected - the record in whose place it comes
 * @returns null for a record of another kind
 */
export async function healthRecordBody(
  work: Work,
  animal: AnimalRow,
  record: NewRecord,
  { id, corrected }: { readonly id: string; readonly corrected: RecordRow | null },
): Promise<Record<string, unknown> | null> {
  if (record.kind === 'health-check') return healthCheckBody(work, animal, record);
  if (record.kind === 'treatment') {
    const courseId = corrected?.body['courseId'] ?? id;
    return { ...record.body, courseId };
  }
  if (record.kind === 'dose') {
    await checkDose(work, animal, record);
    return { ...record.body };
  }
  if (record.kind === 'treatment-end') {
    await runningCourse(work, animal, record.body.courseId);
    return { ...record.body };
  }
  if (record.kind === 'vet-visit') checkLater('body.nextOn', record.body.nextOn, record.on);
  if (record.kind === 'quarantine') checkLater('body.until', record.body.until, record.on);
  if (record.kind === 'post-mortem' && animal.status !== 'died')
    throw invalidField('kind', `cannot be a post-mortem: ${animal.number} is not recorded as dead`, 'alive');
  return null;
}

/** Mites are a matter of the whole rack: which one it was is kept, wherever the animal is put afterwards. */
async function healthCheckBody(
  work: Work,
  animal: AnimalRow,
  { body }: Of<'health-check'>,
): Promise<Record<string, unknown>> {
  const rackId =
    body.signs.includes('mites') && animal.tubId !== null ? await rackOfTub(work, animal.tubId) : null;
  const { words, ...rest } = body;
  return { ...rest, ...(words ? { words } : {}), ...(rackId === null ? {} : { rackId }) };
}

async function runningCourse(work: Work, animal: AnimalRow, courseId: string): Promise<CourseRow> {
  const course = await courseOf(work, { animalId: animal.id, courseId });
  if (!course) throw invalidField('body.courseId', `names no treatment of ${animal.number}`, 'unknown');
  if (course.isEnded)
    throw new Refusal('conflict', 'This treatment was ended. Nothing is recorded of it any more.');
  return course;
}

/** A dose is never recorded twice: whoever comes second is told, and gives none. */
async function checkDose(work: Work, animal: AnimalRow, { on, body }: Of<'dose'>): Promise<void> {
  const { courseId, ordinal } = body;
  const course = await runningCourse(work, animal, courseId);
  if (course.doses !== null && ordinal > course.doses)
    throw invalidField(
      'body.ordinal',
      `is more than the ${course.doses} doses of this treatment`,
      'too-many',
    );
  if (on < course.from)
    throw invalidField('on', `lies before the first day of the treatment, ${course.from}`, 'too-early');
  const logged = (await dosesOf(work, { animalId: animal.id, courseId })).find(
    (dose) => dose.ordinal === ordinal,
  );
  if (logged)
    throw new Refusal(
      'conflict',
      `Dose ${ordinal} of ${animal.number} was recorded already, by ${logged.author}. Give none twice.`,
    );
}

/** A treatment whose doses stand is ended, and not voided: they would be doses of nothing. */
export async function refuseIfDosesStand(work: Work, { kind, animalId, body }: RecordRow): Promise<void> {
  if (kind !== 'treatment') return;
  const doses = await dosesOf(work, { animalId, courseId: String(body['courseId']) });
  if (doses.length > 0)
    throw new Refusal(
      'conflict',
      'Doses of this treatment are recorded. End the treatment, correct it, or void its doses first.',
    );
}
