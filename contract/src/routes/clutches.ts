import * as incubation from '../incubation-requests.ts';
import { hatching, newClutch } from '../breeding-requests.ts';
import type { ClutchView, IncubatorView, ReadingsImport } from '../incubation-responses.ts';
import { acts, changes, lists, reads, writes } from './route.ts';
import type { Changed, Created, Many } from './answers.ts';

export const clutchesRoutes = {
  addClutch: writes<Created>()('post', '/clutches', 'Add a clutch', newClutch),
  clutch: reads<ClutchView>()('/clutches/:id', 'One clutch with its eggs'),
  changeClutch: changes<Changed>()('patch', '/clutches/:id', 'Change a clutch', incubation.clutchChange),
  changeBox: changes<Changed>()(
    'put',
    '/clutches/:id/eggs',
    'Change where and how the eggs lie',
    incubation.boxChange,
  ),
  addEggEvents: writes<Many>()(
    'post',
    '/clutches/:id/egg-events',
    'Record what happened to eggs',
    incubation.newEggEvents,
  ),
  voidEggEvents: writes<void>()(
    'post',
    '/egg-events/void',
    'Take egg events out of account',
    incubation.eggEventsVoiding,
    {
      status: 204,
    },
  ),
  hatch: changes<Many & { numbers: string[] }>()(
    'post',
    '/clutches/:id/hatchlings',
    'Add what hatched',
    hatching,
  ),
  makeClutchCard: acts<Created>()('post', '/clutches/:id/cards', 'Draw a clutch card'),
  clutchCard: reads<void>()('/clutch-cards/:id', 'A clutch card', { format: 'pdf' }),
  incubators: lists<IncubatorView>()('/incubators', 'All incubators', { key: 'id', sorts: ['name'] }),
  addIncubator: writes<Created>()('post', '/incubators', 'Add an incubator', incubation.newIncubator),
  changeIncubator: changes<Created & Changed>()(
    'put',
    '/incubators/:id',
    'Change an incubator',
    incubation.newIncubator,
  ),
  addReading: writes<{ at: string }>()(
    'post',
    '/incubators/:id/readings',
    'Add a reading',
    incubation.newReading,
  ),
  importReadings: acts<ReadingsImport>()(
    'post',
    '/incubators/:id/readings/import',
    'Add the readings of a logger’s file',
    {
      file: 'csv',
      query: ['timeZone'],
    },
  ),
};
