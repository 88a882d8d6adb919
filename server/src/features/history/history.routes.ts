import { ROUTES, type ListQuery } from '@karyotome/contract';
import { reading, type Database } from '../../db/work.ts';
import { noteAct } from '../../domain/history/history.queries.ts';
import { historyPage, wholeHistory } from '../../domain/history/history.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { sendTable } from '../../http/send-table.ts';
import { historyTable } from './history-table.ts';

export function historyRoutes({ listPage, answer }: Endpoints, database: Database): void {
  listPage(ROUTES.history, ({ work }, query) => historyPage(work, query));
  answer(ROUTES.historyTable, async (request, response, actor) => {
    const lines = await reading(database, actor, (work) =>
      wholeHistory(work, request.query as Partial<ListQuery>),
    );
    await noteAct(database, 'exported', actor);
    sendTable(response, 'history.csv', historyTable(lines));
  });
}
