import type { CatalogueView } from '@karyotome/contract';
import type { CatalogueChange } from '@karyotome/core';
import { toRaw } from 'vue';

/** All that makes the collection's catalogue of the built-in one, out of any reactive shell: workers are sent it. */
export function catalogueChanges(view: CatalogueView | undefined): CatalogueChange[] {
  if (!view) return [];
  const entries = view.entries.map(({ entry }): CatalogueChange => ({ ...toRaw(entry) }));
  return view.update ? [...entries, { kind: 'as-of', version: view.version }] : entries;
}
