import { ROUTES } from '@karyotome/contract';
import { reading, type Database } from '../../db/work.ts';
import { idParam } from '../../http/asked.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { localeOf } from '../../http/locale.ts';
import { addEggEvents, changeBox, changeClutch, voidEggEvents } from '../../domain/incubation/box.service.ts';
import {
  cardOrder,
  discardCard,
  drawAndStoreCard,
  keepCard,
  readCard,
  type DrawnCard,
} from './clutch-card.ts';
import { viewClutch } from '../../domain/incubation/clutch-view.service.ts';
import { doneClutches } from '../../domain/incubation/hatch-rates.queries.ts';
import type { FileStore } from '../../files/file-store.ts';

export function incubationRoutes(endpoints: Endpoints, database: Database, files: FileStore): void {
  const { list, read, write, answer } = endpoints;
  read(ROUTES.clutch, ({ work, id }) => viewClutch(work, id));
  write(ROUTES.changeClutch, ({ work, id, body, version }) => changeClutch(work, id, body, version));
  write(ROUTES.changeBox, ({ work, id, body, version }) => changeBox(work, id, body, version));
  write(ROUTES.addEggEvents, ({ work, id, body }) => addEggEvents(work, id, body));
  write(ROUTES.voidEggEvents, ({ work, body }) => voidEggEvents(work, body));
  write(ROUTES.makeClutchCard, ({ work, id }, card: DrawnCard) => keepCard(work, id, card), {
    prepare: async ({ id, request }, actor) =>
      drawAndStoreCard(
        files,
        await reading(database, actor, (work) => cardOrder(work, id, localeOf(request))),
      ),
    discard: (card) => discardCard(files, card),
  });
  answer(ROUTES.clutchCard, async (request, response, actor) => {
    const id = idParam(request);
    const { pdf, name } = await reading(database, actor, (work) => readCard(work, files, id));
    response.set('Cache-Control', 'no-store').type('application/pdf').attachment(name).send(pdf);
  });
  list(ROUTES.hatchRates, ({ work }) => doneClutches(work));
}
