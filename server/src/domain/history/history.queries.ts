import type { HistoryAction, HistoryChange, HistoryFilter, HistorySubject } from '@karyotome/contract';
import { QueryTypes, type Transaction } from 'sequelize';
import { rfc3339 } from '../../db/statement.ts';
import { select, type Database, type Work } from '../../db/work.ts';

/** What is asked for; null for what is not. Days are the farm's. */
export type HistoryAsked = Readonly<Record<HistoryFilter, string | null>>;

/** A line with what it is about. */
export interface HistoryRow {
  readonly id: string;
  readonly at: string;
  readonly action: HistoryAction;
  readonly subject: HistorySubject | null;
  readonly by: string | null;
  readonly program: string | null;
  readonly device: string | null;
  readonly animalId: string | null;
  readonly number: string | null;
  readonly isHere: boolean;
  readonly clutchId: string | null;
  readonly season: number | null;
  readonly ordinal: number | null;
  readonly rackId: string | null;
  readonly rack: string | null;
  readonly fields: readonly string[];
  readonly was: Readonly<Record<string, unknown>> | null;
  readonly becomes: Readonly<Record<string, unknown>> | null;
}

const ASKED = `h.collection_id = :collectionId
  and (:animalId::uuid is null or h.animal_id = :animalId::uuid)
  and (:clutchId::uuid is null or h.clutch_id = :clutchId::uuid)
  and (:rackId::uuid is null or h.rack_id = :rackId::uuid)
  and (:accountId::uuid is null or h.account_id = :accountId::uuid)
  and (:subject::text is null or h.subject = :subject::text)
  and (:from::date is null or h.at >= :from::date::timestamp at time zone :zone)
  and (:to::date is null or h.at < (:to::date + 1)::timestamp at time zone :zone)
  and (:search::text is null or strpos(lower(concat_ws(' ', a.number, r.name, h.was::text, h.becomes::text)), lower(:search)) > 0)`;

const FROM = `from history h
  left join animals a on a.collection_id = h.collection_id and a.id = h.animal_id
  left join racks r on r.collection_id = h.collection_id and r.id = h.rack_id`;

/** The lines that were asked for, the latest first. @param before - the id of the last line of the page before; null for the first */
export function historyRows(
  work: Work,
  asked: HistoryAsked,
  { before, limit }: { readonly before: string | null; readonly limit: number },
): Promise<HistoryRow[]> {
  return select<HistoryRow>(
    work,
    `select h.id::text, ${rfc3339('h.at')} as at, h.action, h.subject,
            who.name as by, t.name as program, h.device, h.animal_id as "animalId",
            coalesce(a.number, (select b.number from bin b where b.collection_id = h.collection_id
              and b.animal_id = h.animal_id limit 1)) as number, a.id is not null as "isHere", h.clutch_id as "clutchId",
            c.season, c.ordinal, h.rack_id as "rackId", r.name as rack, h.fields, h.was, h.becomes
       ${FROM}
       left join clutches c on c.collection_id = h.collection_id and c.id = h.clutch_id
       left join accounts who on who.id = h.account_id
       left join access_tokens t on t.collection_id = h.collection_id and t.id = h.token_id
      where ${ASKED} and (:before::bigint is null or h.id < :before::bigint)
      order by h.id desc limit :limit`,
    { ...asked, zone: work.timeZone, before, limit },
  );
}

export async function historyCount(work: Work, asked: HistoryAsked): Promise<number> {
  const [row] = await select<{ count: number }>(
    work,
    `select count(*)::int as count ${FROM} where ${ASKED}`,
    { ...asked, zone: work.timeZone },
  );
  return row!.count;
}

/** What ids stand for: animals by number, tubs by rack and place. */
export async function namesOf(
  work: Work,
  params: { readonly ids: readonly string[] },
): Promise<Record<string, string>> {
  const rows = await select<{ id: string; name: string }>(
    work,
    `select id, number as name from animals where collection_id = :collectionId and id in (:ids)
     union all
     select t.id, r.name || ' ' || t.level || '-' || t.slot from tubs t
       join racks r on r.collection_id = t.collection_id and r.id = t.rack_id
      where t.collection_id = :collectionId and t.id in (:ids)`,
    params,
  );
  return Object.fromEntries(rows.map(({ id, name }) => [id, name]));
}

/** What somebody did with their account, in each of their collections, or in one of them. */
export async function noteAct(
  { sequelize }: Pick<Database, 'sequelize'>,
  action: HistoryAction,
  {
    accountId,
    collectionId = null,
    device = null,
  }: { readonly accountId: string; readonly collectionId?: string | null; readonly device?: string | null },
  transaction: Transaction | null = null,
): Promise<void> {
  await sequelize.query(
    `insert into history (collection_id, account_id, action, device)
     select collection_id, account_id, $1, $2 from memberships
      where account_id = $3 and ($4::uuid is null or collection_id = $4::uuid)`,
    { bind: [action, device, accountId, collectionId], type: QueryTypes.INSERT, transaction },
  );
}

/** Somebody tried to sign in under an address: told to the owners of every collection that its account may use. */
export async function noteFailure(
  { sequelize }: Pick<Database, 'sequelize'>,
  email: string,
  device: string | null,
): Promise<void> {
  await sequelize.query(
    `insert into history (collection_id, account_id, action, device)
     select m.collection_id, m.account_id, 'sign-in-failed', $1 from memberships m join accounts a on a.id = m.account_id
      where a.email = $2`,
    { bind: [device, email], type: QueryTypes.INSERT },
  );
}

/** The fields of a line, before and after. */
export const changesOf = ({ fields, was, becomes }: HistoryRow): HistoryChange[] =>
  fields.map((field) => ({
    field,
    ...(was && field in was ? { was: was[field] } : {}),
    ...(becomes && field in becomes ? { becomes: becomes[field] } : {}),
  }));
