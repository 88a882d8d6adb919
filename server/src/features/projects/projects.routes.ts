import { ROUTES } from '@karyotome/contract';
import { listProjects, viewProject } from '../../domain/projects/project-views.ts';
import {
  addProjectAnimal,
  changeProject,
  createProject,
  planPairing,
  removePlannedPairing,
  removeProject,
  removeProjectAnimal,
} from '../../domain/projects/projects.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';

export function projectRoutes({ list, read, write }: Endpoints): void {
  list(ROUTES.projects, ({ work }) => listProjects(work));
  read(ROUTES.project, ({ work, id }) => viewProject(work, id), { infers: true });
  write(ROUTES.addProject, ({ work, body }) => createProject(work, body));
  write(ROUTES.changeProject, ({ work, id, body, version }) => changeProject(work, id, body, version));
  write(ROUTES.removeProject, ({ work, id, version }) => removeProject(work, id, version));
  write(ROUTES.addProjectAnimal, ({ work, id, body }) => addProjectAnimal(work, id, body));
  write(ROUTES.removeProjectAnimal, ({ work, id }) => removeProjectAnimal(work, id));
  write(ROUTES.planPairing, ({ work, id, body }) => planPairing(work, id, body));
  write(ROUTES.removePlannedPairing, ({ work, id }) => removePlannedPairing(work, id));
}
