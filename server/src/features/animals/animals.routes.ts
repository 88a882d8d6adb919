import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import {
  changeAnimal,
  createAnimal,
  deleteAnimal,
  listAnimals,
} from '../../domain/animals/animals.service.ts';
import { viewAnimal } from '../../domain/animals/view-animal.ts';

export function animalRoutes({ list, read, write }: Endpoints): void {
  list(ROUTES.animals, ({ work }) => listAnimals(work));
  read(ROUTES.animal, ({ work, id }) => viewAnimal(work, id));
  write(ROUTES.addAnimal, ({ work, body }) => createAnimal(work, body));
  write(ROUTES.changeAnimal, ({ work, id, body, version }) => changeAnimal(work, id, body, version));
  write(ROUTES.deleteAnimal, ({ work, id }) => deleteAnimal(work, id));
}
