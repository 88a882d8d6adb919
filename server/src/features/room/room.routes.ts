import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { changeAssumptions, viewRoom } from './room.service.ts';

export function roomRoutes({ read, write }: Endpoints): void {
  read(ROUTES.room, ({ work }) => viewRoom(work));
  write(ROUTES.changeRoomAssumptions, ({ work, body, version }) => changeAssumptions(work, body, version));
}
