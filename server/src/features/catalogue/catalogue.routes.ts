import { readId, ROUTES } from '@karyotome/contract';
import { invalidField } from '../../refusal.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import {
  addEntry,
  changeEntry,
  removeEntry,
  takeUpdate,
  viewCatalogue,
  viewOccurrence,
} from '../../domain/catalogue/catalogue.service.ts';
import { planEntry, planUpdate, runTrial } from './trial.service.ts';

/** The entry that is edited; anything that is no id cannot be one. */
function replacedBy(asked: unknown): string | null {
  if (asked === undefined) return null;
  const id = typeof asked === 'string' ? readId(asked) : null;
  if (id === null) throw invalidField('replaces', 'is no id of an entry');
  return id;
}

export function catalogueRoutes({ read, write }: Endpoints): void {
  read(ROUTES.catalogue, ({ work }) => viewCatalogue(work));
  read(
    ROUTES.tryCatalogueEntry,
    ({ work, body, request }) => planEntry(work, body, replacedBy(request.query['replaces'])),
    { infers: true, finish: runTrial },
  );
  read(ROUTES.geneOccurrence, ({ work }) => viewOccurrence(work));
  read(ROUTES.tryCatalogueUpdate, ({ work }) => planUpdate(work), { infers: true, finish: runTrial });
  write(ROUTES.takeCatalogueUpdate, ({ work, body }) => takeUpdate(work, body));
  write(ROUTES.addCatalogueEntry, ({ work, body }) => addEntry(work, body));
  write(ROUTES.changeCatalogueEntry, ({ work, id, body, version }) => changeEntry(work, id, body, version));
  write(ROUTES.removeCatalogueEntry, ({ work, id }) => removeEntry(work, id));
}
