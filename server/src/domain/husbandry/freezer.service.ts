import { randomUUID } from 'node:crypto';
import type { NewStockEntry, StockEntryView } from '@karyotome/contract';
import {
  freezer,
  thawList,
  type FreezerLine,
  type Meal,
  type StockEntry,
  type StockUse,
} from '@karyotome/core';
import { voidRow } from '../../db/change-rows.ts';
import { select, type Actor, type Work } from '../../db/work.ts';
import type { Herd } from './herd.ts';

const SHOWN_ENTRIES = 60;

/** What came, was counted and was lost, newest first. */
export function stockEntries(work: Work): Promise<StockEntryView[]> {
  return select(
    work,
    `select s.id, s.prey, s.kind, s.quantity, s.on_day as "on", s.note, a.name as author
       from stock_entries s join accounts a on a.id = s.author_id
      where s.collection_id = :collectionId and s.voided_at is null
      order by s.on_day desc, s.recorded_at desc`,
  );
}

/** Frozen prey that was thawed, by day, since the last count of each kind, or for as long as use is averaged over. */
function stockUses(work: Work): Promise<StockUse[]> {
  return select(
    work,
    `select (r.body ->> 'species') || ' ' || (r.body ->> 'size') as prey, r.on_day as "on", count(*)::int as quantity
       from records r
      where r.collection_id = :collectionId and r.kind = 'feeding' and r.voided_at is null
        and r.body ->> 'state' = 'frozen-thawed'
        and r.on_day >= least(
          cast(:today as date) - 60,
          coalesce((select min(last) from (
            select coalesce(max(s.on_day) filter (where s.kind = 'count'), min(s.on_day)) as last
              from stock_entries s where s.collection_id = :collectionId and s.voided_at is null group by s.prey) k),
            cast(:today as date)))
      group by 1, 2`,
    { today: work.today },
  );
}

/** The thaw list of the day, and the freezer before and after it. Prey that was never booked in has no line. */
export async function freezerOf(
  work: Work,
  herd: Herd,
): Promise<{ thaw: { prey: string; count: number }[]; lines: FreezerLine[]; stock: StockEntryView[] }> {
  const meals = [...herd.animals.keys()]
    .map((id) => herd.meal(id))
    .filter((meal): meal is Meal => meal !== null);
  const thaw = thawList(meals);
  const stock = await stockEntries(work);
  if (stock.length === 0) return { thaw, lines: [], stock };
  const lines = freezer(
    stock satisfies readonly StockEntry[],
    await stockUses(work),
    thaw,
    herd.order,
    work.today,
  );
  return { thaw, lines, stock: stock.slice(0, SHOWN_ENTRIES) };
}

export async function addStock(work: Work<Actor>, input: NewStockEntry): Promise<{ id: string }> {
  const { collectionId, accountId } = work.actor;
  const id = randomUUID();
  const { on, note, ...entry } = input;
  await work.models.stockEntries.create(
    { collectionId, id, ...entry, onDay: on, note: note || null, authorId: accountId },
    { transaction: work.transaction },
  );
  return { id };
}

export function voidStock(work: Work<Actor>, id: string, reason: string): Promise<void> {
  return voidRow(work, work.models.stockEntries, 'This entry', id, reason);
}
