export { mendings, type Mending, type RoomChange, type RoomChanges } from './mend.ts';
export {
  simulateRoom,
  type ComingClutch,
  type RoomAnimal,
  type RoomForecast,
  type RoomKind,
  type RoomKindForecast,
  type RoomQuestion,
} from './simulate-room.ts';
