import { CATALOGUE, createCatalogue, toAdditions } from '@karyotome/core';
import { computed } from 'vue';
import { useCatalogueEntries } from './queries.ts';

/** The genes as this collection has them; the built-in ones until its own are read. Apart, since the catalogue is large. */
export function useCatalogue() {
  const { data } = useCatalogueEntries();
  return computed(() => {
    const entries = data.value?.entries ?? [];
    return entries.length === 0 ? CATALOGUE : createCatalogue(toAdditions(entries.map(({ entry }) => entry)));
  });
}
