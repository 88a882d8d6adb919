import type { ProjectSummary, ProjectView } from '../project-responses.ts';
import type {
  newProject,
  plannedPairingInput,
  projectAnimalInput,
  projectChange,
} from '../project-requests.ts';
import type { Changed, Created } from './answers.ts';
import { acts, changes, lists, reads, writes } from './route.ts';

const BREED = { permission: 'breed' } as const;

export const projectsRoutes = {
  projects: lists<ProjectSummary>()('/projects', 'Projects: what they aim at, and which animals they share', {
    key: 'id',
    sorts: ['name', 'startedOn'],
    filters: ['endedOn'],
  }),
  project: reads<ProjectView>()(
    '/projects/:id',
    'One project with its animals, pairings and what came of them',
  ),
  addProject: writes<Created, typeof newProject>()('post', '/projects', 'Begin a project', BREED),
  changeProject: changes<Changed, typeof projectChange>()('put', '/projects/:id', 'Change a project', BREED),
  removeProject: acts<void>()('delete', '/projects/:id', 'Remove a project', { ...BREED, isVersioned: true }),
  addProjectAnimal: writes<Created, typeof projectAnimalInput>()(
    'post',
    '/projects/:id/animals',
    'Put an animal into a project, or say anew why it belongs there',
    BREED,
  ),
  removeProjectAnimal: acts<void>()(
    'delete',
    '/project-animals/:id',
    'Take an animal out of a project',
    BREED,
  ),
  planPairing: writes<Created, typeof plannedPairingInput>()(
    'post',
    '/projects/:id/pairings',
    'Plan a pairing for a project',
    BREED,
  ),
  removePlannedPairing: acts<void>()('delete', '/planned-pairings/:id', 'Plan a pairing no more', BREED),
};
