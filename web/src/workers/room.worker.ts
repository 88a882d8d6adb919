import { mendings, simulateRoom, type Mending, type RoomForecast, type RoomQuestion } from '@karyotome/core';
import { expose } from 'comlink';

const api = {
  /** @param onProgress - is called with the share done, 0 to 1 */
  forecast: (question: RoomQuestion, onProgress: (share: number) => void): RoomForecast =>
    simulateRoom(question, (share) => void onProgress(share))!,
  /** What would keep the room from filling up. */
  mendings: (question: RoomQuestion, forecast: RoomForecast): Mending[] => mendings(question, forecast),
};
export type RoomApi = typeof api;
expose(api);
