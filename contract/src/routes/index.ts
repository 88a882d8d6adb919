import { animalsRoutes } from './animals.ts';
import { benchRoutes } from './bench.ts';
import { breedingRoutes } from './breeding.ts';
import { climateRoutes } from './climate.ts';
import { clutchesRoutes } from './clutches.ts';
import { enclosuresRoutes } from './enclosures.ts';
import { geneticsRoutes } from './genetics.ts';
import { importsRoutes } from './imports.ts';
import { keepingRoutes } from './keeping.ts';
import { postRoutes } from './post.ts';
import { projectsRoutes } from './projects.ts';
import { publicationsRoutes } from './publications.ts';
import { salesRoutes } from './sales.ts';
import { waitingRoutes } from './waiting.ts';
import { webhooksRoutes } from './webhooks.ts';
import { takenRoutes } from './taken.ts';
import { peopleRoutes } from './people.ts';
import { sessionRoutes } from './session.ts';

/*
 * Every address of the API, under `/api/v1`. The server registers from this table, the client is typed by it, and the API
 * description is made of it: what is not here does not exist.
 */
export const ROUTES = {
  ...sessionRoutes,
  ...peopleRoutes,
  ...animalsRoutes,
  ...importsRoutes,
  ...geneticsRoutes,
  ...breedingRoutes,
  ...clutchesRoutes,
  ...projectsRoutes,
  ...climateRoutes,
  ...benchRoutes,
  ...keepingRoutes,
  ...enclosuresRoutes,
  ...publicationsRoutes,
  ...salesRoutes,
  ...postRoutes,
  ...takenRoutes,
  ...waitingRoutes,
  ...webhooksRoutes,
} as const;
