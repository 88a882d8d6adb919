import type { deletion } from '../bin.ts';
import type * as husbandry from '../husbandry-requests.ts';
import type { newLadder, newRack, newRacks, rackOrder } from '../enclosure-requests.ts';
import type { HeatFault } from '@karyotome/core';
import type { LearnedView } from '../husbandry-responses.ts';
import type { voiding } from '../records.ts';
import type { LadderView, RackSummary, RackView, TubView } from '../enclosure-responses.ts';
import { changes, lists, reads, writes } from './route.ts';
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
  addRack: writes<Created, typeof newRack>()('post', '/racks', 'Add a rack', { permission: 'house' }),
  addRacks: writes<Many, typeof newRacks>()('post', '/racks/several', 'Add several racks, all or none', {
    permission: 'house',
  }),
  orderRacks: writes<Many, typeof rackOrder>()('post', '/racks/order', 'Put the racks into walking order', {
    permission: 'house',
  }),
  changeRack: changes<Created, typeof husbandry.rackChange>()('put', '/racks/:id', 'Change a rack', {
    permission: 'house',
  }),
  deleteRack: writes<Created, typeof deletion>()(
    'post',
    '/racks/:id/delete',
    'Put an empty rack into the bin',
    {
      permission: 'destroy',
    },
  ),
  ladders: lists<LadderView>()('/ladders', 'Enclosures in order of weight', { key: 'id', sorts: ['name'] }),
  addLadder: writes<Created, typeof newLadder>()('post', '/ladders', 'Add a ladder', { permission: 'house' }),
  changeLadder: changes<Created, typeof newLadder>()('put', '/ladders/:id', 'Change a ladder', {
    permission: 'house',
  }),
  moveMany: writes<Many, typeof husbandry.manyMoves>()('post', '/moves', 'Move animals', {
    permission: 'house',
  }),
  learnedMoves: reads<LearnedView>()('/moves/learned', 'How moves turned out'),
  addHeatZone: writes<Created, typeof husbandry.heatZoneInput>()('post', '/heat-zones', 'Add a heat zone', {
    permission: 'house',
  }),
  changeHeatZone: changes<Created, typeof husbandry.heatZoneInput>()(
    'put',
    '/heat-zones/:id',
    'Change a heat zone',
    { permission: 'house' },
  ),
  deleteHeatZone: writes<Created, typeof deletion>()(
    'post',
    '/heat-zones/:id/delete',
    'Put a heat zone into the bin',
    { permission: 'destroy' },
  ),
  addSurfaceCheck: writes<Created & { faults: HeatFault[] }, typeof husbandry.surfaceCheck>()(
    'post',
    '/heat-zones/:id/checks',
    'Record a check at the surface',
  ),
  voidSurfaceCheck: writes<void, typeof voiding>()(
    'post',
    '/surface-checks/:id/void',
    'Take a check out of account',
    {
      status: 204,
    },
  ),
};
