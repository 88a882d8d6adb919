import { randomUUID } from 'node:crypto';
import type { NewStockEntry, StockEntryView } from '@karyotome/contract';
import { freezer, thawList, type FreezerLine, type Meal, type StockEntry } from '@karyotome/core';
import { voidRow } from '../../db/change-rows.ts';
import { type Actor, type Work } from '../../db/work.ts';
import type { Herd } from './herd.ts';
import { stockEntries, stockUses } from './freezer.queries.ts';

const SHOWN_ENTRIES = 60;

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
