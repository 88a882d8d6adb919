import type * as climate from '../climate-requests.ts';
import type { IncubatorView, ReadingsImport, RoomClimateView } from '../climate-responses.ts';
import type { Changed, Created } from './answers.ts';
import { acts, changes, lists, writes } from './route.ts';

/** Places whose temperature and humidity are watched. */
export const climateRoutes = {
  incubators: lists<IncubatorView>()('/incubators', 'All incubators', { key: 'id', sorts: ['name'] }),
  addIncubator: writes<Created, typeof climate.newIncubator>()('post', '/incubators', 'Add an incubator', {
    permission: 'house',
  }),
  changeIncubator: changes<Created & Changed, typeof climate.newIncubator>()(
    'put',
    '/incubators/:id',
    'Change an incubator',
    { permission: 'house' },
  ),
  addReading: writes<{ at: string }, typeof climate.newReading>()(
    'post',
    '/incubators/:id/readings',
    'Add a reading',
  ),
  importReadings: acts<ReadingsImport>()(
    'post',
    '/incubators/:id/readings/import',
    'Add the readings of a logger’s file',
    { file: 'csv', query: ['timeZone'] },
  ),
  rooms: lists<RoomClimateView>()('/rooms', 'All rooms whose climate is watched', {
    key: 'id',
    sorts: ['name'],
  }),
  addRoom: writes<Created, typeof climate.newRoom>()('post', '/rooms', 'Watch the climate of a room', {
    permission: 'house',
  }),
  changeRoom: changes<Created & Changed, typeof climate.newRoom>()('put', '/rooms/:id', 'Change a room', {
    permission: 'house',
  }),
  addRoomReading: writes<{ at: string }, typeof climate.newReading>()(
    'post',
    '/rooms/:id/readings',
    'Add a reading of a room',
  ),
  importRoomReadings: acts<ReadingsImport>()(
    'post',
    '/rooms/:id/readings/import',
    'Add the readings of a logger’s file in a room',
    { file: 'csv', query: ['timeZone'] },
  ),
};
