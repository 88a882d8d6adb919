import { ROUTES } from '@karyotome/contract';
import { allTubs } from '../../domain/enclosures/enclosures.queries.ts';
import { learnedMoves } from '../../domain/husbandry/herd-lessons.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import {
  addSurfaceCheck,
  addZone,
  changeZone,
  deleteZone,
  voidSurfaceCheck,
} from '../../domain/enclosures/heat.service.ts';
import {
  changeLadder,
  changeRack,
  createLadder,
  createRack,
  createRacks,
  deleteRack,
  listLadders,
  listRacks,
  moveMany,
  orderRacks,
  takeBackMany,
  viewRack,
} from '../../domain/enclosures/racks.service.ts';

export function rackRoutes({ list, read, write }: Endpoints): void {
  list(ROUTES.ladders, ({ work }) => listLadders(work));
  write(ROUTES.addLadder, ({ work, body }) => createLadder(work, body));
  write(ROUTES.changeLadder, ({ work, id, body, version }) => changeLadder(work, id, body, version));
  list(ROUTES.racks, ({ work }) => listRacks(work));
  read(ROUTES.rack, ({ work, id }) => viewRack(work, id));
  list(ROUTES.tubs, ({ work }) => allTubs(work));
  write(ROUTES.addRacks, ({ work, body }) => createRacks(work, body.racks));
  write(ROUTES.orderRacks, ({ work, body }) => orderRacks(work, body.ids));
  write(ROUTES.addRack, ({ work, body }) => createRack(work, body));
  write(ROUTES.deleteRack, ({ work, id, body }) => deleteRack(work, id, body.reason));
  write(ROUTES.changeRack, ({ work, id, body, version }) => changeRack(work, id, body, version));
  write(ROUTES.moveMany, ({ work, body }) => moveMany(work, body));
  write(ROUTES.voidRecords, ({ work, body }) => takeBackMany(work, body.ids));
  read(ROUTES.learnedMoves, ({ work }) => learnedMoves(work));
  write(ROUTES.addHeatZone, ({ work, body }) => addZone(work, body));
  write(ROUTES.changeHeatZone, ({ work, id, body, version }) => changeZone(work, id, body, version));
  write(ROUTES.deleteHeatZone, ({ work, id, body }) => deleteZone(work, id, body.reason));
  write(ROUTES.addSurfaceCheck, ({ work, id, body }) => addSurfaceCheck(work, id, body));
  write(ROUTES.voidSurfaceCheck, ({ work, id, body }) => voidSurfaceCheck(work, id, body.reason));
}
