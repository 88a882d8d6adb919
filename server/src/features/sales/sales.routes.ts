import { ROUTES } from '@karyotome/contract';
import { noteAct } from '../../domain/history/history.queries.ts';
import { changeCollection } from '../../domain/collection/change-collection.ts';
import { inquiryViews } from '../../domain/sales/inquiries.queries.ts';
import { answerInquiry, deleteInquiry } from '../../domain/sales/inquiries.service.ts';
import { changeOffer, changePrices, offerOf } from '../../domain/sales/offers.service.ts';
import { addPerson, changePerson, erasePerson, exportPerson } from '../../domain/sales/persons.service.ts';
import { saleLines } from '../../domain/sales/sale-lines.ts';
import { saleRulesOf } from '../../domain/sales/sale-rules.ts';
import { eventsOfAnimal, personViews } from '../../domain/sales/sales.queries.ts';
import { addStatusEvents, correctStatusEvent, voidStatusEvent } from '../../domain/sales/status-events.ts';
import { findAnimal } from '../../domain/animals/animals.service.ts';
import { reading, type Database } from '../../db/work.ts';
import { idParam } from '../../http/asked.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { localeOf } from '../../http/locale.ts';
import { inThread } from '../../threads/pool.ts';
import { viewDesk } from './desk.service.ts';
import { careSheetOf, receiptOf } from './papers.service.ts';
import { sendTable } from '../../http/send-table.ts';
import { salesTable } from './sales-table.ts';

export function salesRoutes(endpoints: Endpoints, database: Database): void {
  const { list, read, write } = endpoints;
  list(ROUTES.sales, ({ work }) => saleLines(work));
  read(ROUTES.desk, ({ work, id }) => viewDesk(work, id));
  read(ROUTES.salesSettings, ({ work }) => saleRulesOf(work));
  write(ROUTES.changeSaleRules, ({ work, body, version }) =>
    changeCollection(work, { saleRules: body }, version),
  );
  list(ROUTES.statusEvents, async ({ work, id }) => {
    await findAnimal(work, id);
    return eventsOfAnimal(work, { animalId: id });
  });
  write(ROUTES.addStatusEvents, ({ work, body }) => addStatusEvents(work, body));
  write(ROUTES.voidStatusEvent, async ({ work, id, body }) => {
    await voidStatusEvent(work, id, body.reason);
  });
  write(ROUTES.correctStatusEvent, ({ work, id, body }) => correctStatusEvent(work, id, body));
  read(ROUTES.offer, async ({ work, id }) => {
    await findAnimal(work, id);
    return offerOf(work, id);
  });
  write(ROUTES.changeOffer, ({ work, id, body, version }) => changeOffer(work, id, body, version));
  write(ROUTES.changePrices, ({ work, body }) => changePrices(work, body));
  paperRoutes(endpoints, database);
}

export function personRoutes({ list, read, write }: Endpoints): void {
  list(ROUTES.persons, ({ work }) => personViews(work, { id: null }));
  write(ROUTES.addPerson, ({ work, body }) => addPerson(work, body));
  write(ROUTES.changePerson, ({ work, id, body, version }) => changePerson(work, id, body, version));
  read(ROUTES.exportPerson, ({ work, id }) => exportPerson(work, id));
  list(ROUTES.inquiries, ({ work }) => inquiryViews(work));
  write(ROUTES.answerInquiry, ({ work, id }) => answerInquiry(work, id));
  write(ROUTES.deleteInquiry, ({ work, id }) => deleteInquiry(work, id));
  write(ROUTES.erasePerson, ({ work, id }) => erasePerson(work, id));
}

/** Papers are drawn in a thread, from what the records say now. */
function paperRoutes({ answer }: Endpoints, database: Database): void {
  answer(ROUTES.salesTable, async (_request, response, actor) => {
    const lines = await reading(database, actor, saleLines);
    await noteAct(database, 'exported', actor);
    sendTable(response, 'sales.csv', salesTable(lines));
  });
  answer(ROUTES.receipt, async (request, response, actor) => {
    const id = idParam(request);
    const receipt = await reading(database, actor, (work) => receiptOf(work, id, localeOf(request)));
    const pdf = await inThread('receipt-pdf', receipt);
    const name = `receipt-${receipt.animal.number}.pdf`;
    response.set('Cache-Control', 'no-store').type('pdf').attachment(name).send(Buffer.from(pdf));
  });
  answer(ROUTES.careSheet, async (request, response, actor) => {
    const id = idParam(request);
    const withHealth = request.query['health'] === '1';
    const sheet = await reading(database, actor, (work) =>
      careSheetOf(work, id, { locale: localeOf(request), withHealth }),
    );
    const pdf = await inThread('care-sheet-pdf', sheet);
    const name = `care-sheet-${sheet.animal.number}.pdf`;
    response.set('Cache-Control', 'no-store').type('pdf').attachment(name).send(Buffer.from(pdf));
  });
}
