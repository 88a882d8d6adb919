import type * as incubation from '../incubation-requests.ts';
import type { hatching, newClutch } from '../breeding-requests.ts';
import type { ClutchView } from '../incubation-responses.ts';
import { acts, changes, reads, writes } from './route.ts';
import type { Changed, Created, Many } from './answers.ts';

export const clutchesRoutes = {
  addClutch: writes<Created, typeof newClutch>()('post', '/clutches', 'Add a clutch', {
    permission: 'breed',
  }),
  clutch: reads<ClutchView>()('/clutches/:id', 'One clutch with its eggs'),
  changeClutch: changes<Changed, typeof incubation.clutchChange>()(
    'patch',
    '/clutches/:id',
    'Change a clutch',
    { permission: 'breed' },
  ),
  changeBox: changes<Changed, typeof incubation.boxChange>()(
    'put',
    '/clutches/:id/eggs',
    'Change where and how the eggs lie',
  ),
  addEggEvents: writes<Many, typeof incubation.newEggEvents>()(
    'post',
    '/clutches/:id/egg-events',
    'Record what happened to eggs',
  ),
  voidEggEvents: writes<void, typeof incubation.eggEventsVoiding>()(
    'post',
    '/egg-events/void',
    'Take egg events out of account',
    {
      status: 204,
    },
  ),
  hatch: changes<Many & { numbers: string[] }, typeof hatching>()(
    'post',
    '/clutches/:id/hatchlings',
    'Add what hatched',
    { permission: 'breed' },
  ),
  makeClutchCard: acts<Created>()('post', '/clutches/:id/cards', 'Draw a clutch card'),
  clutchCard: reads<void>()('/clutch-cards/:id', 'A clutch card', { format: 'pdf' }),
};
