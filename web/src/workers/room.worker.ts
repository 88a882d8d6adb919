import { mendings, simulateRoom, type Mending, type RoomForecast, type RoomQuestion } from '@karyotome/core';

/* One question in; its progress, the forecast, and then what would mend it, out. */

export type FromRoom =
  { readonly progress: number } | { readonly forecast: RoomForecast } | { readonly mendings: Mending[] };
const post = (message: FromRoom): void => self.postMessage(message);

self.addEventListener('message', ({ data }: MessageEvent<RoomQuestion>) => {
  const forecast = simulateRoom(data, (progress) => post({ progress }))!;
  post({ forecast });
  post({ mendings: mendings(data, forecast) });
});
