import type { HealthCaseView } from '@karyotome/contract';
import type { Work } from '../../db/work.ts';
import { summariesOf } from '../animals/animals.service.ts';
import { statesOf, unstoredStates } from '../states/animal-states.ts';
import { isHealthCase } from '../states/compute-state.ts';
import { storedHealthCases } from './health.queries.ts';

/** Animals under treatment, in quarantine, with signs, or to be seen by a veterinarian: by number. */
export async function healthCases(work: Work): Promise<HealthCaseView[]> {
  const fresh = (await unstoredStates(work)).filter(({ state }) => isHealthCase(state)).map(({ id }) => id);
  const ids = [...(await storedHealthCases(work)), ...fresh];
  const states = await statesOf(work, ids);
  const animals = await summariesOf(work, ids);
  return animals
    .toSorted((a, b) => (a.number < b.number ? -1 : 1))
    .map((animal) => ({ id: animal.id, animal, health: states.get(animal.id)!.health }));
}
