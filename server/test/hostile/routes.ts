import * as schemas from '@karyotome/contract';
import type { Express } from 'express';
import type Joi from 'joi';

/** What an address takes, for requests to be generated from; a test holds this list against the application's own routes. */
export interface RouteUnderTest {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: string;
  readonly schema?: Joi.Schema;
  readonly file?: 'csv' | 'picture';
  /** Asked without a session. */
  readonly isOpen?: boolean;
  /** An answer that does not end by itself. */
  readonly isStream?: boolean;
}

export const ROUTES: readonly RouteUnderTest[] = [
  { method: 'get', path: '/health', isOpen: true },
  { method: 'get', path: '/public/:slug', isOpen: true },
  { method: 'get', path: '/public/:slug/pictures/:id', isOpen: true },
  { method: 'get', path: '/calendar/:file', isOpen: true },
  { method: 'get', path: '/opinion-links/:token', isOpen: true },
  { method: 'get', path: '/opinion-links/:token/pictures/:id', isOpen: true },
  { method: 'post', path: '/opinion-links/:token', isOpen: true, schema: schemas.outsideOpinions },
  { method: 'get', path: '/session' },
  { method: 'post', path: '/session', isOpen: true, schema: schemas.signIn },
  { method: 'delete', path: '/session', isOpen: true },
  { method: 'put', path: '/settings', schema: schemas.collectionSettings },
  { method: 'get', path: '/changes', isStream: true },
  { method: 'get', path: '/jobs/:id' },
  { method: 'get', path: '/catalogue' },
  { method: 'post', path: '/catalogue/entries', schema: schemas.catalogueEntry },
  { method: 'put', path: '/catalogue/entries/:id', schema: schemas.catalogueEntry },
  { method: 'delete', path: '/catalogue/entries/:id' },
  { method: 'get', path: '/contradictions' },
  { method: 'get', path: '/animals/:id/claims/:locus/:allele' },
  { method: 'get', path: '/animals/:id/kin' },
  { method: 'get', path: '/animals' },
  { method: 'post', path: '/animals', schema: schemas.newAnimal },
  { method: 'get', path: '/animals/:id' },
  { method: 'patch', path: '/animals/:id', schema: schemas.animalChange },
  { method: 'delete', path: '/animals/:id' },
  { method: 'post', path: '/imports/preview', file: 'csv' },
  { method: 'post', path: '/imports', file: 'csv' },
  { method: 'post', path: '/animals/:id/records', schema: schemas.newRecord },
  { method: 'post', path: '/records/:id/void', schema: schemas.voiding },
  { method: 'post', path: '/records/:id/correct', schema: schemas.correction },
  { method: 'get', path: '/pairings' },
  { method: 'post', path: '/pairings', schema: schemas.newPairing },
  { method: 'delete', path: '/pairings/:id' },
  { method: 'post', path: '/clutches', schema: schemas.newClutch },
  { method: 'post', path: '/clutches/:id/hatchlings', schema: schemas.hatching },
  { method: 'get', path: '/clutches/:id/bench' },
  { method: 'get', path: '/calls' },
  { method: 'put', path: '/animals/:id/look', schema: schemas.lookChange },
  { method: 'put', path: '/clutches/:id/sorting', schema: schemas.sortingChange },
  { method: 'get', path: '/clutches/:id/set-up' },
  { method: 'post', path: '/clutches/:id/set-up', schema: schemas.settingUp },
  { method: 'post', path: '/animals/:id/opinions', schema: schemas.newOpinion },
  { method: 'delete', path: '/opinions/:id' },
  { method: 'post', path: '/clutches/:id/opinion-links', schema: schemas.newOpinionLink },
  { method: 'delete', path: '/opinion-links/:id' },
  { method: 'post', path: '/labels/preview', schema: schemas.labelOrder },
  { method: 'post', path: '/labels', schema: schemas.labelOrder },
  { method: 'get', path: '/labels/:id' },
  { method: 'get', path: '/season' },
  { method: 'put', path: '/season/rules', schema: schemas.seasonRules },
  { method: 'post', path: '/season/introductions', schema: schemas.introduction },
  { method: 'post', path: '/pairings/:id/events', schema: schemas.newSeasonEvent },
  { method: 'put', path: '/pairings/:id/sires', schema: schemas.siresChange },
  { method: 'post', path: '/pairing-events/:id/void', schema: schemas.voiding },
  { method: 'post', path: '/pairing-events/:id/correct', schema: schemas.seasonEventCorrection },
  { method: 'get', path: '/clutches/:id' },
  { method: 'patch', path: '/clutches/:id', schema: schemas.clutchChange },
  { method: 'put', path: '/clutches/:id/eggs', schema: schemas.boxChange },
  { method: 'post', path: '/clutches/:id/egg-events', schema: schemas.newEggEvents },
  { method: 'post', path: '/egg-events/void', schema: schemas.eggEventsVoiding },
  { method: 'post', path: '/clutches/:id/cards' },
  { method: 'get', path: '/clutch-cards/:id' },
  { method: 'get', path: '/hatch-rates' },
  { method: 'get', path: '/incubators' },
  { method: 'post', path: '/incubators', schema: schemas.newIncubator },
  { method: 'put', path: '/incubators/:id', schema: schemas.newIncubator },
  { method: 'post', path: '/incubators/:id/readings', schema: schemas.newReading },
  { method: 'post', path: '/incubators/:id/readings/import', file: 'csv' },
  { method: 'get', path: '/planner' },
  { method: 'get', path: '/calendar-feeds' },
  { method: 'post', path: '/calendar-feeds', schema: schemas.newFeed },
  { method: 'delete', path: '/calendar-feeds/:id' },
  { method: 'get', path: '/ladders' },
  { method: 'post', path: '/ladders', schema: schemas.newLadder },
  { method: 'put', path: '/ladders/:id', schema: schemas.newLadder },
  { method: 'get', path: '/racks' },
  { method: 'post', path: '/racks', schema: schemas.newRack },
  { method: 'delete', path: '/racks/:id' },
  { method: 'put', path: '/racks/:id', schema: schemas.rackChange },
  { method: 'post', path: '/moves', schema: schemas.manyMoves },
  { method: 'post', path: '/records/void', schema: schemas.takenBack },
  { method: 'get', path: '/moves/learned' },
  { method: 'post', path: '/heat-zones', schema: schemas.heatZoneInput },
  { method: 'put', path: '/heat-zones/:id', schema: schemas.heatZoneInput },
  { method: 'delete', path: '/heat-zones/:id' },
  { method: 'post', path: '/heat-zones/:id/checks', schema: schemas.surfaceCheck },
  { method: 'post', path: '/surface-checks/:id/void', schema: schemas.voiding },
  { method: 'get', path: '/feeding' },
  { method: 'put', path: '/feeding/rules', schema: schemas.rulesChange },
  { method: 'post', path: '/feeding/plans', schema: schemas.planInput },
  { method: 'put', path: '/feeding/plans/:key', schema: schemas.planInput },
  { method: 'delete', path: '/feeding/plans/:key' },
  { method: 'post', path: '/stock', schema: schemas.newStockEntry },
  { method: 'post', path: '/stock/:id/void', schema: schemas.voiding },
  { method: 'get', path: '/rounds' },
  { method: 'post', path: '/rounds/entries', schema: schemas.roundEntries },
  { method: 'get', path: '/room' },
  { method: 'put', path: '/room/assumptions', schema: schemas.roomAssumptions },
  { method: 'get', path: '/today' },
  { method: 'post', path: '/animals/:id/pictures', file: 'picture' },
  { method: 'post', path: '/clutches/:id/pictures', file: 'picture' },
  { method: 'get', path: '/pictures/:id' },
  { method: 'delete', path: '/pictures/:id' },
  { method: 'get', path: '/showcase' },
  { method: 'put', path: '/animals/:id/publication', schema: schemas.publishing },
  { method: 'delete', path: '/animals/:id/publication' },
];

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
  readonly handle: { readonly stack?: readonly Layer[] };
}

/** Every route the application has, as `get /animals/:id`. */
export function routesOf(app: Express): string[] {
  const visit = (layers: readonly Layer[]): string[] =>
    layers.flatMap(({ route, handle }) =>
      route
        ? Object.keys(route.methods).map((method) => `${method} ${route.path}`)
        : handle.stack
          ? visit(handle.stack)
          : [],
    );
  return visit((app as unknown as { router: { stack: readonly Layer[] } }).router.stack);
}
