import * as husbandry from '../husbandry-requests.ts';
import { newLadder, newRack } from '../enclosure-requests.ts';
import type { HeatFault } from '@karyotome/core';
import type { LearnedView } from '../husbandry-responses.ts';
import { voiding } from '../records.ts';
import type { LadderView, RackSummary, RackView, TubView } from '../enclosure-responses.ts';
import { acts, changes, lists, reads, writes } from './route.ts';
import type { Created, Many } from './answers.ts';

export const enclosuresRoutes = {
  racks: lists<RackSummary>()('/racks', 'All racks', {
    key: 'id',
    sorts: ['name'],
    filters: ['room'],
  }),
  rack: reads<RackView>()('/racks/:id', 'One rack with its tubs and who lives in them'),
  tubs: lists<TubView>()('/tubs', 'All tubs, in walking order', {
    key: 'tubId',
    filters: ['isFree', 'room', 'rack'],
  }),
  addRack: writes<Created>()('post', '/racks', 'Add a rack', newRack),
  changeRack: changes<Created>()('put', '/racks/:id', 'Change a rack', husbandry.rackChange),
  deleteRack: acts<void>()('delete', '/racks/:id', 'Remove an empty rack'),
  ladders: lists<LadderView>()('/ladders', 'Enclosures in order of weight', { key: 'id', sorts: ['name'] }),
  addLadder: writes<Created>()('post', '/ladders', 'Add a ladder', newLadder),
  changeLadder: changes<Created>()('put', '/ladders/:id', 'Change a ladder', newLadder),
  moveMany: writes<Many>()('post', '/moves', 'Move animals', husbandry.manyMoves),
  learnedMoves: reads<LearnedView>()('/moves/learned', 'How moves turned out'),
  addHeatZone: writes<Created>()('post', '/heat-zones', 'Add a heat zone', husbandry.heatZoneInput),
  changeHeatZone: changes<Created>()('put', '/heat-zones/:id', 'Change a heat zone', husbandry.heatZoneInput),
  removeHeatZone: acts<void>()('delete', '/heat-zones/:id', 'Remove a heat zone'),
  addSurfaceCheck: writes<Created & { faults: HeatFault[] }>()(
    'post',
    '/heat-zones/:id/checks',
    'Record a check at the surface',
    husbandry.surfaceCheck,
  ),
  voidSurfaceCheck: writes<void>()(
    'post',
    '/surface-checks/:id/void',
    'Take a check out of account',
    voiding,
    {
      status: 204,
    },
  ),
};
