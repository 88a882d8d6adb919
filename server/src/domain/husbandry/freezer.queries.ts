import type { StockEntryView } from '@karyotome/contract';
import type { StockUse } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';

/** Counts and purchases of frozen prey, the newest first. */
export function stockEntries(work: Work): Promise<StockEntryView[]> {
  return select<StockEntryView>(
    work,
    `select s.id, s.prey, s.kind, s.quantity, s.on_day as "on", s.note, a.name as author
       from stock_entries s join accounts a on a.id = s.author_id
      where s.collection_id = :collectionId and s.voided_at is null
      order by s.on_day desc, s.recorded_at desc`,
  );
}

/** Frozen prey eaten since the last counts. */
export function stockUses(work: Work): Promise<StockUse[]> {
  return select<StockUse>(
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
