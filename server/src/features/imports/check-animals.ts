import { newAnimal, validate, type FieldProblem, type NewAnimal } from '@karyotome/contract';
import type { Catalogue } from '@karyotome/core';
import { genesProblems } from '../../domain/genetics/identification-check.ts';
import { groupBy } from '../../group-by.ts';
import { parentProblems, type KinFacts } from './check-records.ts';
import type { AnimalItem, ImportGround } from './file-items.ts';
import { wrong, type ReadRow } from './read-rows.ts';

/** Of unknown words so many are told with what they may have been meant as; that is what takes long. */
const WORDS_TOLD = 500;

/** New animals; what is wrong with a row is added to its problems. Those that are right stand after their parents. */
export function toAnimals(
  rows: readonly ReadRow[],
  ground: ImportGround,
  catalogue: Catalogue,
): AnimalItem[] {
  const genes = new GenesChecker(catalogue);
  const items = rows.map((row) => toAnimal(row, ground, genes));
  const used = new Set(ground.used);
  const animals = new Map<string, KinFacts>(ground.known.map((animal) => [animal.number, animal]));
  for (const { animal } of items)
    animals.set(animal.number, {
      number: animal.number,
      sex: animal.sex,
      hatchedOn: animal.hatchedOn ?? null,
    });
  const placeOf = new Map<string, number>();
  items.forEach((item, i) => {
    const { problems } = rows[i]!;
    const { number } = item.animal;
    const earlier = placeOf.get(number);
    if (earlier === undefined) placeOf.set(number, i);
    else problems.push(wrong('number', 'repeated', `stands in line ${rows[earlier]!.line} too`));
    if (used.has(number))
      problems.push(wrong('number', 'taken', 'was used before; numbers are never reused'));
    for (const field of ['dam', 'sire'] as const) checkParent(item, field, animals, problems);
    if (item.dam !== '' && item.dam === item.sire)
      problems.push(wrong('sire', 'same-parent', 'is the dam too'));
  });
  const order = parentsFirst(items, placeOf);
  const sorted = new Set(order);
  items.forEach((item, i) => {
    if (!sorted.has(i))
      rows[i]!.problems.push(
        wrong(item.dam ? 'dam' : 'sire', 'own-ancestor', 'makes the animal its own ancestor'),
      );
  });
  markYoungOfBad(items, rows, placeOf, order);
  return order.filter((i) => rows[i]!.problems.length === 0).map((i) => items[i]!);
}

function toAnimal(row: ReadRow, { today }: ImportGround, genes: GenesChecker): AnimalItem {
  const { values, problems } = row;
  const text = (field: string): string | null => (values[field] == null ? null : String(values[field]));
  const animal = {
    number: text('number') ?? '',
    name: text('name'),
    sex: text('sex') as NewAnimal['sex'],
    hatchedOn: text('hatched'),
    genes: text('genes'),
    massG: values['weight'] as number | null,
    status: text('status') as NewAnimal['status'],
    note: text('note'),
  };
  const isSaid = (field: string): boolean => problems.some((problem) => problem.field === field);
  const result = validate(newAnimal, animal, { today });
  if (!result.ok)
    for (const problem of result.problems) {
      const field = COLUMN_OF.get(problem.field) ?? problem.field;
      if (!isSaid(field)) problems.push({ ...problem, field });
    }
  if (animal.genes && !isSaid('genes')) problems.push(...genes.check(animal.genes));
  const weighedOn = text('weighed');
  if (weighedOn !== null && weighedOn > today)
    problems.push(wrong('weighed', 'day.future', 'lies in the future'));
  if (weighedOn !== null && animal.hatchedOn !== null && weighedOn < animal.hatchedOn)
    problems.push(wrong('weighed', 'before-hatching', 'lies before the hatch date'));
  return { line: row.line, animal, dam: text('dam') ?? '', sire: text('sire') ?? '', weighedOn };
}

const COLUMN_OF: ReadonlyMap<string, string> = new Map([
  ['hatchedOn', 'hatched'],
  ['massG', 'weight'],
]);

function checkParent(
  item: AnimalItem,
  field: 'dam' | 'sire',
  animals: ReadonlyMap<string, KinFacts>,
  problems: FieldProblem[],
): void {
  const number = item[field];
  if (number === '') return;
  const parent = animals.get(number);
  if (!parent) problems.push(wrong(field, 'unknown', 'names no animal of the file or the collection'));
  else {
    const { hatchedOn = null } = item.animal;
    const young = { number: item.animal.number, hatchedOn };
    // One reason is enough.
    problems.push(...parentProblems(field, parent, young).slice(0, 1));
  }
}

/** Rows that are left out take their young with them: those would name a parent that is not there. */
function markYoungOfBad(
  items: readonly AnimalItem[],
  rows: readonly ReadRow[],
  placeOf: ReadonlyMap<string, number>,
  order: readonly number[],
): void {
  for (const i of order)
    for (const field of ['dam', 'sire'] as const) {
      const parent = placeOf.get(items[i]![field]);
      const isSaid = rows[i]!.problems.some((problem) => problem.field === field);
      if (!isSaid && parent !== undefined && rows[parent]!.problems.length > 0)
        rows[i]!.problems.push(
          wrong(field, 'bad-parent', `stands in line ${rows[parent]!.line}, which needs a correction`),
        );
    }
}

/** Places of the rows in an order in which parents come before their young (Kahn 1962, Communications of the ACM 5). */
function parentsFirst(items: readonly AnimalItem[], placeOf: ReadonlyMap<string, number>): number[] {
  const links = items.flatMap(({ dam, sire }, child) =>
    [dam, sire].flatMap((number) => {
      const parent = number === '' ? undefined : placeOf.get(number);
      return parent === undefined ? [] : [{ parent, child }];
    }),
  );
  const young = groupBy(links, ({ parent }) => parent);
  const open = items.map(() => 0);
  for (const { child } of links) open[child]! += 1;
  const ready = open.flatMap((parents, at) => (parents === 0 ? [at] : []));
  for (let next = 0; next < ready.length; next++)
    for (const { child } of young.get(ready[next]!) ?? []) {
      open[child]! -= 1;
      if (open[child] === 0) ready.push(child);
    }
  return ready;
}

/** Reads each text once, and stops looking for what unknown words may have been meant as when there are too many. */
class GenesChecker {
  readonly #catalogue: Catalogue;
  readonly #known = new Map<string, FieldProblem[]>();
  #words = 0;

  constructor(catalogue: Catalogue) {
    this.#catalogue = catalogue;
  }

  check(text: string): FieldProblem[] {
    let problems = this.#known.get(text);
    if (!problems) {
      problems =
        this.#words < WORDS_TOLD
          ? genesProblems(text, 'genes', this.#catalogue)
          : [
              wrong(
                'genes',
                'unread',
                `was not read: the file has more than ${WORDS_TOLD} unknown words; correct those first`,
              ),
            ];
      this.#words += problems.length;
      this.#known.set(text, problems);
    }
    return problems;
  }
}
