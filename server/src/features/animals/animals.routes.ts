import { animalFilterQuery, growthQuery, ROUTES, type AnimalView } from '@karyotome/contract';
import { mayDo } from '../../access/policy.ts';
import { checked } from '../../http/asked.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { changeAnimal, createAnimal, summariesInOrder } from '../../domain/animals/animals.service.ts';
import {
  addAnimalList,
  animalLists,
  changeAnimalList,
  removeAnimalList,
} from '../../domain/animals/animal-lists.ts';
import { readSearch } from '../../domain/animals/filter-animals.ts';
import { geneticsSoon } from '../../domain/genetics/genetics.service.ts';
import { searchAnimals } from '../../domain/animals/search-animals.ts';
import { viewAnimal } from '../../domain/animals/view-animal.ts';
import { growthLines } from '../../domain/husbandry/growth-lines.queries.ts';
import { grownLooks } from '../../domain/pictures/grown-looks.ts';

/** What was paid for an animal is for those who sell. */
const withoutPrices = (animal: AnimalView): AnimalView => ({
  ...animal,
  records: animal.records.map((record) =>
    record.kind === 'acquisition'
      ? { ...record, body: { ...record.body, price: null, currency: null } }
      : record,
  ),
});

export function animalRoutes({ list, listByKey, read, write }: Endpoints): void {
  listByKey(
    ROUTES.animals,
    ({ work }, query) => searchAnimals(work, query),
    ({ work }, page) => summariesInOrder(work, page),
  );
  read(ROUTES.animalFilter, async ({ work, request }) =>
    readSearch(work, await geneticsSoon(work), checked(animalFilterQuery, request.query).text),
  );
  read(ROUTES.grownLooks, ({ work, id }) => grownLooks(work, id));
  read(ROUTES.growth, ({ work, request }) => growthLines(work, checked(growthQuery, request.query)));
  list(ROUTES.animalLists, ({ work }) => animalLists(work));
  write(ROUTES.addAnimalList, ({ work, body }) => addAnimalList(work, body));
  write(ROUTES.changeAnimalList, ({ work, id, body, version }) => changeAnimalList(work, id, body, version));
  write(ROUTES.removeAnimalList, ({ work, id, version }) => removeAnimalList(work, id, version));
  read(ROUTES.animal, async ({ work, id }) => {
    const animal = await viewAnimal(work, id);
    return mayDo(work.actor, 'sell', true) ? animal : withoutPrices(animal);
  });
  write(ROUTES.addAnimal, ({ work, body }) => createAnimal(work, body));
  write(ROUTES.changeAnimal, ({ work, id, body, version }) => changeAnimal(work, id, body, version));
}
