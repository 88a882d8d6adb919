import { newRecord, validate, type FieldProblem, type NewRecord } from '@karyotome/contract';
import type { ImportGround, KnownAnimal, ParentsItem, RecordItem } from './file-items.ts';
import { wrong, type ReadRow, type Value } from './read-rows.ts';

type RecordsKind = 'weights' | 'meals' | 'sheds';

/** What a row of each kind says, as a record. */
const RECORDS: Readonly<
  Record<RecordsKind, (values: Readonly<Record<string, Value>>) => { kind: NewRecord['kind']; body: object }>
> = {
  weights: ({ weight }) => ({ kind: 'weight', body: { massG: weight } }),
  meals: ({ prey, size, preyWeight, state, taken }) => ({
    kind: 'feeding',
    body: {
      species: prey,
      size,
      ...(preyWeight == null ? {} : { preyG: preyWeight }),
      state,
      taken: taken === 'yes',
    },
  }),
  sheds: ({ stage, complete }) => ({
    kind: 'shed',
    body: { stage, ...(complete == null ? {} : { complete: complete === 'yes' }) },
  }),
};
/** Fields of records by the column that they come from. */
const COLUMN_OF: Readonly<Record<string, string>> = {
  'body.massG': 'weight',
  'body.preyG': 'preyWeight',
  'body.species': 'prey',
  'body.size': 'size',
};

/** Records of animals that are there; what is wrong with a row is added to its problems. */
export function toRecordItems(
  kind: RecordsKind,
  rows: readonly ReadRow[],
  ground: ImportGround,
): RecordItem[] {
  const animals = new Map(ground.known.map((animal) => [animal.number, animal]));
  const seen = new Map<string, number>();
  return rows.flatMap((row) => {
    const { line, values, problems } = row;
    const animal = knownAnimal(row, 'number', animals);
    const on = values['on'] as string | null;
    if (animal?.hatchedOn && on !== null && on < animal.hatchedOn)
      problems.push(wrong('on', 'before-hatching', `lies before the hatch date, ${animal.hatchedOn}`));
    if (!animal || problems.length > 0) return [];
    const record = { ...RECORDS[kind](values), on, note: values['note'] ?? null } as NewRecord;
    const result = validate(newRecord, record, { today: ground.today });
    if (!result.ok) {
      problems.push(
        ...result.problems.map((p): FieldProblem => ({ ...p, field: COLUMN_OF[p.field] ?? p.field })),
      );
      return [];
    }
    const key = JSON.stringify([animal.id, record.on, record.body]);
    const earlier = seen.get(key);
    if (earlier !== undefined) {
      problems.push(wrong('row', 'repeated', `says the same as line ${earlier}`));
      return [];
    }
    seen.set(key, line);
    return [{ line, animalId: animal.id, record }];
  });
}

/** Parents of animals that are there. */
export function toParents(rows: readonly ReadRow[], ground: ImportGround): ParentsItem[] {
  const animals = new Map(ground.known.map((animal) => [animal.number, animal]));
  const seen = new Map<string, number>();
  return rows.flatMap((row) => {
    const { line, values, problems } = row;
    const animal = knownAnimal(row, 'number', animals);
    const numberIn = (field: string): string => String(values[field] ?? '');
    const [dam, sire] = [numberIn('dam'), numberIn('sire')];
    if (animal?.clutchId)
      problems.push(
        wrong('number', 'of-a-clutch', 'hatched in a clutch here: its parents are those of the clutch'),
      );
    if (dam === '' && sire === '')
      problems.push(wrong('dam', 'any.required', 'is missing, and so is the sire'));
    if (dam !== '' && dam === sire) problems.push(wrong('sire', 'same-parent', 'is the dam too'));
    const earlier = seen.get(numberIn('number'));
    if (earlier !== undefined) problems.push(wrong('number', 'repeated', `stands in line ${earlier} too`));
    else seen.set(numberIn('number'), line);
    for (const field of ['dam', 'sire'] as const) {
      const parent = numberIn(field) === '' ? null : knownAnimal(row, field, animals);
      if (parent) problems.push(...parentProblems(field, parent, animal));
    }
    return animal && problems.length === 0 ? [{ line, number: animal.number, dam, sire }] : [];
  });
}

/** What of an animal has to do with whether it can be a parent, or have one. */
export type KinFacts = Pick<KnownAnimal, 'number' | 'sex' | 'hatchedOn'>;

/** Why an animal cannot be the parent of another; null for one that is not known. */
export function parentProblems(
  field: 'dam' | 'sire',
  parent: KinFacts,
  young: Pick<KinFacts, 'number' | 'hatchedOn'> | null,
): FieldProblem[] {
  const [right, wrongSex] = field === 'dam' ? ['female', 'male'] : ['male', 'female'];
  const problems: FieldProblem[] = [];
  if (parent.sex === wrongSex)
    problems.push(wrong(field, 'wrong-sex', `must be a ${right}: it is ${wrongSex}`));
  if (parent.number === young?.number) problems.push(wrong(field, 'own-ancestor', 'is the animal itself'));
  if (parent.hatchedOn && young?.hatchedOn && parent.hatchedOn >= young.hatchedOn)
    problems.push(wrong(field, 'too-young', `hatched on ${parent.hatchedOn}, not before its young`));
  return problems;
}

/** The animal that a cell names; a cell that names none is a problem of its row. */
export function knownAnimal(
  { values, problems }: ReadRow,
  field: string,
  animals: ReadonlyMap<string, KnownAnimal>,
): KnownAnimal | null {
  const number = values[field];
  if (number == null) return null;
  const animal = animals.get(String(number));
  if (!animal) problems.push(wrong(field, 'unknown', 'names no animal of the collection'));
  return animal ?? null;
}
