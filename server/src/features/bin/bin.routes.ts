import { ROUTES } from '@karyotome/contract';
import { deleteAnimal, erase, listBin, restore } from '../../domain/bin/bin.service.ts';
import type { FileStore } from '../../files/file-store.ts';
import type { Endpoints } from '../../http/endpoint.ts';

/** What was deleted, and can be restored for a while. */
export function binRoutes({ list, write }: Endpoints, files: FileStore): void {
  write(ROUTES.deleteAnimal, ({ work, id, body }) => deleteAnimal(work, id, body.reason));
  list(ROUTES.bin, ({ work }) => listBin(work));
  write(ROUTES.restoreFromBin, ({ work, id }) => restore(work, id));
  write(ROUTES.eraseFromBin, ({ work, id }) => erase(work, files, id));
}
