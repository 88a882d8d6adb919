import type { Sex, Status } from '@karyotome/contract';
import { QueryTypes, type Transaction } from 'sequelize';
import { select, type Database, type Work } from '../../db/work.ts';

/*
 * Questions of public pages. Those that every visitor asks are one short statement each, outside of any transaction; in one
 * where a page is made, so that it has the revision of what it shows.
 */

/** A database, or a unit of work. */
export type Source = Database & { readonly transaction?: Transaction };

/** Changes with everything that an animal's page shows. */
const REVISION = `
  concat_ws(' ', p.withdrawn_at, a.version, a.records_revision, o.version, c.version,
    (select max(statement) from statements s where s.collection_id = p.collection_id and s.animal_id = p.animal_id),
    (select count(*) || '/' || max(created_at) from pictures pic
      where pic.collection_id = p.collection_id and pic.animal_id = p.animal_id))`;

export interface PageRow {
  readonly collectionId: string;
  readonly animalId: string;
  readonly pageName: string;
  readonly publishedAt: Date;
  readonly withdrawnAt: Date | null;
  readonly revision: string;
}

/** The page at an address, withdrawn or not. */
export async function pageAt({ sequelize, transaction }: Source, slug: string): Promise<PageRow | null> {
  const [row] = await sequelize.query<PageRow>(
    `select p.collection_id as "collectionId", p.animal_id as "animalId", c.page_name as "pageName",
            p.published_at as "publishedAt", p.withdrawn_at as "withdrawnAt", ${REVISION} as revision
       from publications p
       join animals a on a.collection_id = p.collection_id and a.id = p.animal_id
       join collections c on c.id = p.collection_id
       left join offers o on o.collection_id = p.collection_id and o.animal_id = p.animal_id
      where p.slug = :slug`,
    { type: QueryTypes.SELECT, replacements: { slug }, transaction },
  );
  return row ?? null;
}

export interface FrontRow {
  readonly collectionId: string;
  readonly name: string;
  readonly massUnit: 'g' | 'oz';
  readonly temperatureUnit: 'C' | 'F';
  readonly revision: string;
}

/** The collection whose front page has a name, where anything of it was ever published. */
export async function frontAt(
  { sequelize, transaction }: Source,
  pageName: string,
): Promise<FrontRow | null> {
  const [row] = await sequelize.query<FrontRow>(
    `select c.id as "collectionId", c.name, c.mass_unit as "massUnit", c.temperature_unit as "temperatureUnit",
            c.version || md5(coalesce(string_agg(${REVISION}, '|' order by p.id), '')) as revision
       from collections c
       join publications p on p.collection_id = c.id
       join animals a on a.collection_id = p.collection_id and a.id = p.animal_id
       left join offers o on o.collection_id = p.collection_id and o.animal_id = p.animal_id
      where c.page_name = :pageName group by c.id, c.name`,
    { type: QueryTypes.SELECT, replacements: { pageName }, transaction },
  );
  return row ?? null;
}

/** The animal of an open page of a collection. */
export async function animalOfPage(
  { sequelize }: Database,
  replacements: { readonly slug: string; readonly collectionId: string },
): Promise<{ id: string; number: string } | null> {
  const [row] = await sequelize.query<{ id: string; number: string }>(
    `select a.id, a.number from publications p
       join animals a on a.collection_id = p.collection_id and a.id = p.animal_id
      where p.slug = :slug and p.collection_id = :collectionId and p.withdrawn_at is null`,
    { type: QueryTypes.SELECT, replacements },
  );
  return row ?? null;
}

export interface OfferedRow {
  readonly id: string;
  readonly slug: string;
  readonly number: string;
  readonly name: string | null;
  readonly sex: Sex;
  readonly hatchedOn: string | null;
  readonly status: Status;
  readonly price: number | null;
  readonly currency: string | null;
  readonly text: string | null;
  readonly label: string | null;
  readonly publishedAt: Date;
  readonly issuedAt: Date;
  readonly picture: { readonly id: string; readonly width: number; readonly height: number } | null;
}

/** Animals with a page and a statement, the latest published first. The picture is the first that shows. */
export function offeredAnimals(work: Work): Promise<OfferedRow[]> {
  return select<OfferedRow>(
    work,
    `select a.id, p.slug, a.number, a.name, a.sex, a.hatched_on as "hatchedOn", a.status, o.price, o.currency, o.text,
            s.shown ->> 'label' as label, p.published_at as "publishedAt", s.issued_at as "issuedAt",
            (select json_build_object('id', pic.id, 'width', pic.width, 'height', pic.height) from pictures pic
              where pic.collection_id = p.collection_id and pic.animal_id = p.animal_id
                and (o.picture_ids is null or pic.id::text = o.picture_ids ->> 0)
              order by pic.created_at desc limit 1) as picture
       from publications p
       join animals a on a.collection_id = p.collection_id and a.id = p.animal_id
       left join offers o on o.collection_id = p.collection_id and o.animal_id = p.animal_id
       join lateral (
         select shown, issued_at from statements s where s.collection_id = p.collection_id and s.animal_id = p.animal_id
          order by statement desc limit 1) s on true
      where p.collection_id = :collectionId and p.withdrawn_at is null
      order by p.published_at desc, a.number`,
  );
}
