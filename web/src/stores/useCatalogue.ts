import { CATALOGUE, createCatalogue, toAdditions } from '@karyotome/core';
import { computed } from 'vue';
import { catalogueChanges } from './catalogue-changes.ts';
import { useCatalogueEntries } from './queries.ts';

/** The genes as this collection has them; the built-in ones until its own are read. Apart, since the catalogue is large. */
export function useCatalogue() {
  const { data } = useCatalogueEntries();
  return computed(() => {
    const changes = catalogueChanges(data.value);
    return changes.length === 0 ? CATALOGUE : createCatalogue(toAdditions(changes));
  });
}
