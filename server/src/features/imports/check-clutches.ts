import { LEAST_INCUBATION_C, MOST_EGGS, MOST_INCUBATION_C, MOST_SIRES } from '@karyotome/contract';
import type { ClutchItem, ImportGround } from './file-items.ts';
import { knownAnimal } from './check-records.ts';
import { wrong, type ReadRow } from './read-rows.ts';

/** Several numbers in one cell stand apart by a comma, a semicolon, a plus, a slash or a line end. */
const APART = /\s*[,;+/\n]\s*/;

/** Clutches of animals that are there, the earliest first: they are numbered in that order. */
export function toClutches(rows: readonly ReadRow[], ground: ImportGround): ClutchItem[] {
  const animals = new Map(ground.known.map((animal) => [animal.number, animal]));
  const used = new Set(ground.used);
  const items = rows.flatMap((row) => {
    const { line, values, problems } = row;
    const dam = knownAnimal(row, 'dam', animals);
    if (dam?.sex === 'male') problems.push(wrong('dam', 'wrong-sex', 'must be a female: it is male'));
    const sires = listIn(values['sire']);
    for (const number of sires) {
      const sire = animals.get(number);
      if (!sire) problems.push(wrong('sire', 'unknown', `names no animal of the collection: ${number}`));
      else if (sire.sex === 'female')
        problems.push(wrong('sire', 'wrong-sex', `must be males: ${number} is female`));
    }
    if (sires.length > MOST_SIRES)
      problems.push(wrong('sire', 'array.max', `names more than ${MOST_SIRES} males`));
    const hatchlings = listIn(values['hatchlings']);
    for (const number of hatchlings) {
      if (used.has(number))
        problems.push(wrong('hatchlings', 'taken', `names ${number}, which was used before`));
      used.add(number);
    }
    checkNumbers(row, hatchlings.length);
    checkDays(row, ground.today);
    if (hatchlings.length > 0 && values['hatched'] == null)
      problems.push(wrong('hatched', 'any.required', 'is missing, and there are hatchlings'));
    if (problems.length > 0) return [];
    const item: ClutchItem = {
      line,
      dam: dam!.number,
      sires,
      pairedOn: values['paired'] as string | null,
      laidOn: values['laid'] as string,
      eggs: values['eggs'] as number,
      slugs: (values['slugs'] ?? null) as number | null,
      incubationC: (values['incubation'] ?? null) as number | null,
      hatchedOn: hatchlings.length > 0 ? (values['hatched'] as string) : null,
      hatchlings,
      note: (values['note'] ?? null) as string | null,
    };
    return [item];
  });
  return items.toSorted((a, b) => a.laidOn.localeCompare(b.laidOn));
}

const listIn = (value: unknown): string[] =>
  value == null ? [] : [...new Set(String(value).split(APART))].filter((number) => number !== '');

function checkNumbers({ values, problems }: ReadRow, hatchlings: number): void {
  const within = (field: string, least: number, most: number, isWhole: boolean): void => {
    const value = values[field];
    if (typeof value !== 'number') return;
    if (value < least || value > most || (isWhole && !Number.isInteger(value)))
      problems.push(
        wrong(field, 'number.range', `must be ${isWhole ? 'a whole number ' : ''}from ${least} to ${most}`),
      );
  };
  within('eggs', 1, MOST_EGGS, true);
  within('slugs', 0, MOST_EGGS, true);
  within('incubation', LEAST_INCUBATION_C, MOST_INCUBATION_C, false);
  const eggs = values['eggs'];
  if (typeof eggs !== 'number') return;
  if (Number(values['slugs'] ?? 0) > eggs)
    problems.push(wrong('slugs', 'number.max', `must be at most the number of eggs, ${eggs}`));
  if (hatchlings > 2 * eggs)
    problems.push(wrong('hatchlings', 'number.max', `must be at most two an egg, ${2 * eggs}`));
}

function checkDays({ values, problems }: ReadRow, today: string): void {
  const day = (field: string): string | null => (values[field] ?? null) as string | null;
  for (const field of ['paired', 'laid', 'hatched'])
    if ((day(field) ?? '') > today) problems.push(wrong(field, 'day.future', 'lies in the future'));
  const [paired, laid, hatched] = [day('paired'), day('laid'), day('hatched')];
  if (paired !== null && laid !== null && paired > laid)
    problems.push(wrong('paired', 'before-pairing', 'lies after the lay date'));
  if (hatched !== null && laid !== null && hatched < laid)
    problems.push(wrong('hatched', 'before-laying', `lies before the lay date, ${laid}`));
}
