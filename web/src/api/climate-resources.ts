import { ROUTES as R, type NewIncubator, type NewReading, type NewRoom } from '@karyotome/contract';
import { call, callAll, type LongWork } from './call.ts';

const CSV = 'text/csv';

/** Places whose climate is watched. */
export const climateApi = {
  incubators: () => callAll(R.incubators),
  addIncubator: (body: NewIncubator) => call(R.addIncubator, { body }),
  changeIncubator: (id: string, body: NewIncubator, version: number) =>
    call(R.changeIncubator, { params: { id }, body, version }),
  addReading: (id: string, body: NewReading) => call(R.addReading, { params: { id }, body }),
  importReadings: (id: string, file: Blob, timeZone: string, work: LongWork) =>
    call(R.importReadings, { params: { id }, query: { timeZone }, file, type: CSV, ...work }),

  rooms: () => callAll(R.rooms),
  addRoom: (body: NewRoom) => call(R.addRoom, { body }),
  changeRoom: (id: string, body: NewRoom, version: number) =>
    call(R.changeRoom, { params: { id }, body, version }),
  addRoomReading: (id: string, body: NewReading) => call(R.addRoomReading, { params: { id }, body }),
  importRoomReadings: (id: string, file: Blob, timeZone: string, work: LongWork) =>
    call(R.importRoomReadings, { params: { id }, query: { timeZone }, file, type: CSV, ...work }),
};
