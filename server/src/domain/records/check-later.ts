import { invalidField } from '../../refusal.ts';

/** Refuses a day that is not after that of the record which names it. */
export function checkLater(field: string, day: string | null | undefined, on: string): void {
  if (day != null && day <= on)
    throw invalidField(field, 'must lie after the day of the record', 'not-later');
}
