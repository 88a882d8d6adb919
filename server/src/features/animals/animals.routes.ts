import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { changeAnimal, createAnimal, summariesInOrder } from '../../domain/animals/animals.service.ts';
import { searchAnimals } from '../../domain/animals/search-animals.ts';
import { viewAnimal } from '../../domain/animals/view-animal.ts';

export function animalRoutes({ listByKey, read, write }: Endpoints): void {
  listByKey(
    ROUTES.animals,
    ({ work }, query) => searchAnimals(work, query),
    ({ work }, page) => summariesInOrder(work, page),
  );
  read(ROUTES.animal, ({ work, id }) => viewAnimal(work, id));
  write(ROUTES.addAnimal, ({ work, body }) => createAnimal(work, body));
  write(ROUTES.changeAnimal, ({ work, id, body, version }) => changeAnimal(work, id, body, version));
}
