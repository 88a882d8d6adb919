import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import {
  addEntry,
  changeEntry,
  removeEntry,
  viewCatalogue,
} from '../../domain/catalogue/catalogue.service.ts';
import { tryEntry } from './trial.service.ts';

export function catalogueRoutes({ read, write }: Endpoints): void {
  read(ROUTES.catalogue, ({ work }) => viewCatalogue(work));
  write(ROUTES.tryCatalogueEntry, ({ work, body }) => tryEntry(work, body));
  write(ROUTES.addCatalogueEntry, ({ work, body }) => addEntry(work, body));
  write(ROUTES.changeCatalogueEntry, ({ work, id, body, version }) => changeEntry(work, id, body, version));
  write(ROUTES.removeCatalogueEntry, ({ work, id }) => removeEntry(work, id));
}
