import type { AnimalSummary, ListQuery, PictureView, RecordView } from '@karyotome/contract';
import { select, type Work } from '../../db/work.ts';
import { HOUSING } from '../enclosures/enclosures.queries.ts';
import { LAST_WEIGHT } from './last-weight-sql.ts';
import { labelOf } from '../genetics/inferred-of-animal.ts';
import { type Genetics } from '../genetics/genetics.service.ts';

interface SummaryRow extends Omit<AnimalSummary, 'label' | 'tub' | 'identified'> {
  tubId: string | null;
  rackId: string | null;
  room: string | null;
  rack: string | null;
  level: number | null;
  slot: number | null;
}

const SUMMARY_SQL = `
  select a.id, a.number, a.name, a.sex, a.hatched_on as "hatchedOn", a.status, a.clutch_id as "clutchId", a.version,
         w.mass_g as "massG", w.on_day as "weighedOn",
         t.id as "tubId", k.id as "rackId", k.room, k.name as rack, t.level, t.slot,
         pub.id is not null as published, pic.id as "pictureId"
    from animals a
    ${HOUSING}
    left join publications pub
      on pub.collection_id = a.collection_id and pub.animal_id = a.id and pub.withdrawn_at is null
    ${LAST_WEIGHT}
    left join lateral (
      select p.id from pictures p where p.collection_id = a.collection_id and p.animal_id = a.id
       order by p.created_at desc limit 1) pic on true
   where a.collection_id = :collectionId`;

function toSummary(row: SummaryRow, genetics: Genetics): AnimalSummary {
  const { tubId, rackId, room, rack, level, slot, ...rest } = row;
  return {
    ...rest,
    label: labelOf(genetics, row.id),
    identified: isIdentified(genetics, row.id),
    tub:
      tubId === null
        ? null
        : { tubId, rackId: rackId!, room: room!, rack: rack!, level: level!, slot: slot! },
  };
}

const isIdentified = ({ recorded }: Genetics, id: string): boolean =>
  recorded.get(id)?.identification !== undefined || recorded.get(id)?.stated !== undefined;

/** Animals in summary, by number. `where` is SQL of this project's own, never of a request. */
export async function summaries(
  work: Work,
  genetics: Genetics,
  where = '',
  replacements: Record<string, unknown> = {},
): Promise<AnimalSummary[]> {
  const rows = await select<SummaryRow>(work, `${SUMMARY_SQL} ${where} order by a.number`, replacements);
  return rows.map((row) => toSummary(row, genetics));
}

type RecordOfAnimal = RecordView & { readonly animalId: string };
/** Null where there is none. */
type RecordColumns = { readonly [Field in keyof RecordOfAnimal]: readonly RecordOfAnimal[Field][] | null };

/** The animals with a page open to everybody, by number. */
export function publishedAnimals(work: Work): Promise<{ id: string; number: string }[]> {
  return select(
    work,
    `select a.id, a.number from publications p
       join animals a on a.collection_id = p.collection_id and a.id = p.animal_id
      where p.collection_id = :collectionId and p.withdrawn_at is null order by a.number`,
  );
}

/**
 * All records of animals, newest first, voided ones included. Packed by the database column by column into one row, which is
 * faster to make and to read than an object or a row for each record.
 */
export async function recordViews(work: Work, animalIds: readonly string[]): Promise<RecordOfAnimal[]> {
  if (animalIds.length === 0) return [];
  const [packed] = await select<{ columns: RecordColumns }>(
    work,
    `select json_build_object('id', array_agg(id), 'animalId', array_agg(animal_id), 'kind', array_agg(kind),
              'on', array_agg(on_day), 'body', array_agg(body), 'note', array_agg(note), 'author', array_agg(author),
              'recordedAt', array_agg(recorded_at), 'from', array_agg(breeder), 'voided', array_agg(voided)) as columns
       from (
         select r.id, r.animal_id, r.kind, r.on_day, r.body, r.note, r.recorded_at, who.name as author, b.name as breeder,
                case when r.voided_at is not null then json_build_object('at', r.voided_at, 'by', voider.name,
                  'reason', r.void_reason, 'replacedBy', r.replaced_by) end as voided
           from records r
           join accounts who on who.id = r.author_id
           left join accounts voider on voider.id = r.voided_by
           left join taken_statements t on t.collection_id = r.collection_id and t.id = r.taken_id
           left join breeders b on b.collection_id = t.collection_id and b.id = t.breeder_id
          where r.collection_id = :collectionId and r.animal_id in (:animalIds)
          order by r.on_day desc, r.recorded_at desc) every`,
    { animalIds },
  );
  return unpacked(packed!.columns);
}

function unpacked(columns: RecordColumns): RecordOfAnimal[] {
  const { id, animalId, kind, on, body, note, author, recordedAt, from, voided } = columns;
  return (id ?? []).map(
    (_, i) =>
      ({
        id: id![i],
        animalId: animalId![i],
        kind: kind![i],
        on: on![i],
        body: body![i],
        note: note![i],
        author: author![i],
        recordedAt: recordedAt![i],
        from: from![i],
        voided: voided![i],
      }) as RecordOfAnimal,
  );
}

export function pictureViews(work: Work, animalId: string): Promise<PictureView[]> {
  return select(
    work,
    `select id, caption, is_drawing as "isDrawing", taken_on as "takenOn", width, height, edit
       from pictures where collection_id = :collectionId and animal_id = :animalId order by created_at desc`,
    { animalId },
  );
}

/** What animals can be sorted by, in SQL; those of the last weight read it. */
const SORTS: Readonly<Record<string, readonly string[]>> = {
  number: ['a.number'],
  name: ['a.name'],
  sex: ['a.sex'],
  hatchedOn: ['a.hatched_on'],
  massG: ['w.mass_g'],
  weighedOn: ['w.on_day'],
  status: ['a.status'],
  tub: ['k.walk_order', 'k.room', 'k.name', 't.level', 't.slot'],
};
/** What a sort reads beside the animal `a`. */
const SORT_JOINS: Readonly<Record<string, string>> = {
  massG: LAST_WEIGHT,
  weighedOn: LAST_WEIGHT,
  tub: HOUSING,
};
const FILTERS: Readonly<Record<string, string>> = {
  sex: 'a.sex = :sex',
  id: "a.id::text = any(string_to_array(:id, ','))",
  status: "a.status = any(string_to_array(:status, ','))",
  clutchId: 'a.clutch_id::text = :clutchId',
};

/** The ids of the animals that were asked for, in the order that was asked for; by number where none was. */
export async function animalIds(work: Work, query: ListQuery): Promise<string[]> {
  const field = query.sort?.replace(/^-/, '') ?? 'number';
  const direction = query.sort?.startsWith('-') ? 'desc' : 'asc';
  const order = (SORTS[field] ?? []).map((column) => `${column} ${direction} nulls last`).join(', ');
  const wanted = Object.keys(FILTERS).filter((name) => query[name] != null);
  const [found] = await select<{ ids: string[] }>(
    work,
    // One list of text, many times faster to fetch than as many rows.
    `select coalesce(json_agg(a.id order by ${order}, a.number), '[]') as ids
       from animals a ${SORT_JOINS[field] ?? ''}
      where a.collection_id = :collectionId ${wanted.map((name) => `and ${FILTERS[name]}`).join(' ')}`,
    Object.fromEntries(wanted.map((name) => [name, query[name]])),
  );
  return found!.ids;
}

/** What an animal is found by, beside its genes: number, name, room and rack. By id. */
export async function searchTexts(work: Work): Promise<Readonly<Record<string, string>>> {
  const [found] = await select<{ texts: Record<string, string> }>(
    work,
    `select coalesce(json_object_agg(a.id, concat_ws(' ', a.number, a.name, k.room, k.name)), '{}') as texts
       from animals a ${HOUSING} where a.collection_id = :collectionId`,
  );
  return found!.texts;
}
