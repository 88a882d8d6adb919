import { randomUUID } from 'node:crypto';
import type { NewStockEntry, StockEntryView } from '@karyotome/contract';
import { freezer, ORDER_RULES, type FreezerLine, type StockEntry } from '@karyotome/core';
import { voidRow } from '../../db/change-rows.ts';
import { type Actor, type Work } from '../../db/work.ts';
import { collectionOf } from '../collection/collection-of.ts';
import { stockEntries, stockUses } from './freezer.queries.ts';

const SHOWN_ENTRIES = 60;

/** The freezer before and after a thaw list. Prey that was never booked in has no line. */
export async function freezerOf(
  work: Work,
  thaw: readonly { readonly prey: string; readonly count: number }[],
): Promise<{ lines: FreezerLine[]; stock: StockEntryView[] }> {
  const stock = await stockEntries(work);
  if (stock.length === 0) return { lines: [], stock };
  const { orderRules } = await collectionOf(work);
  const lines = freezer(
    stock satisfies readonly StockEntry[],
    await stockUses(work),
    thaw,
    { ...ORDER_RULES, ...orderRules },
    work.today,
  );
  return { lines, stock: stock.slice(0, SHOWN_ENTRIES) };
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
