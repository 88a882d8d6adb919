import { animalChange, newAnimal } from '@karyotome/contract';
import { Router } from 'express';
import { checked, expectedVersion, idParam, type Endpoints } from '../../http/endpoint.ts';
import { changeAnimal, createAnimal, deleteAnimal, listAnimals } from './animals.service.ts';
import { viewAnimal } from './view-animal.ts';

export function animalRoutes({ read, write }: Endpoints): Router {
  const router = Router();
  router.get(
    '/animals',
    read((work) => listAnimals(work)),
  );
  router.post(
    '/animals',
    write(async (work, request) => ({
      status: 201,
      body: await createAnimal(work, checked(newAnimal, request.body, work)),
    })),
  );
  router.get(
    '/animals/:id',
    read((work, request) => viewAnimal(work, idParam(request))),
  );
  router.patch(
    '/animals/:id',
    write(async (work, request) => ({
      status: 200,
      body: await changeAnimal(
        work,
        idParam(request),
        checked(animalChange, request.body, work),
        expectedVersion(request),
      ),
    })),
  );
  router.delete(
    '/animals/:id',
    write(
      async (work, request) => {
        await deleteAnimal(work, idParam(request));
        return { status: 204 };
      },
      { act: 'destroy' },
    ),
  );
  return router;
}
