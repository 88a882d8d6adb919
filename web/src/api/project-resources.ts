import {
  ROUTES as R,
  type NewProject,
  type PlannedPairingInput,
  type ProjectAnimalInput,
  type ProjectChange,
} from '@karyotome/contract';
import { call, callAll } from './call.ts';

/** Projects: what is to be bred, with which animals, and which pairings are planned. */
export const projectApi = {
  projects: () => callAll(R.projects),
  project: (id: string) => call(R.project, { params: { id } }),
  addProject: (body: NewProject) => call(R.addProject, { body }),
  changeProject: (id: string, body: ProjectChange, version: number) =>
    call(R.changeProject, { params: { id }, body, version }),
  removeProject: (id: string, version: number) => call(R.removeProject, { params: { id }, version }),
  addProjectAnimal: (id: string, body: ProjectAnimalInput) =>
    call(R.addProjectAnimal, { params: { id }, body }),
  removeProjectAnimal: (id: string) => call(R.removeProjectAnimal, { params: { id } }),
  planPairing: (id: string, body: PlannedPairingInput) => call(R.planPairing, { params: { id }, body }),
  removePlannedPairing: (id: string) => call(R.removePlannedPairing, { params: { id } }),
};
