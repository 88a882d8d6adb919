import type { voiding } from '../records.ts';
import type {
  newStatusEvents,
  offerInput,
  personInput,
  pricesInput,
  saleRules,
  statusCorrection,
} from '../sale-requests.ts';
import type {
  DeskView,
  InquiryView,
  OfferView,
  PersonExport,
  PersonView,
  SaleLine,
  SalesSettings,
  StatusEventView,
} from '../sale-responses.ts';
import { acts, changes, lists, reads, writes } from './route.ts';
import type { Changed, Created, Many } from './answers.ts';

/* Who buys is nobody's business but of those who record: all but an animal's own history asks for `record`. */
export const salesRoutes = {
  sales: lists<SaleLine>()(
    '/sales',
    'Animals that are decided upon, offered, reserved or sold',
    { key: 'id', sorts: ['season'], filters: ['status', 'season'] },
    { permission: 'sell' },
  ),
  salesTable: reads<void>()('/sales.csv', 'The same as a table', { permission: 'sell', format: 'csv' }),
  salesSettings: reads<SalesSettings>()('/sale-rules', 'When an animal is ready for sale'),
  changeSaleRules: changes<Changed, typeof saleRules>()(
    'put',
    '/sale-rules',
    'Change when one is ready for sale',
    {
      permission: 'manage',
    },
  ),
  desk: reads<DeskView>()('/clutches/:id/desk', 'A clutch side by side, to be decided upon', {
    permission: 'sell',
  }),
  statusEvents: lists<StatusEventView>()(
    '/animals/:id/status-events',
    "What happened to an animal's status, the newest first",
    { key: 'id' },
    { permission: 'sell' },
  ),
  addStatusEvents: writes<Many, typeof newStatusEvents>()(
    'post',
    '/status-events',
    'Decide upon, offer, reserve or sell animals',
    { permission: 'sell' },
  ),
  voidStatusEvent: writes<void, typeof voiding>()(
    'post',
    '/status-events/:id/void',
    "Take an animal's last event out of account",
    { permission: 'sell', status: 204 },
  ),
  correctStatusEvent: writes<Created, typeof statusCorrection>()(
    'post',
    '/status-events/:id/correct',
    "Put a correct event in the place of an animal's last one",
    { permission: 'sell' },
  ),
  receipt: reads<void>()('/status-events/:id/receipt', 'A receipt of a sale', {
    permission: 'sell',
    format: 'pdf',
  }),
  careSheet: reads<void>()('/animals/:id/care-sheet', 'How it was kept, for its new keeper', {
    permission: 'sell',
    format: 'pdf',
    // `health=1`: with its health records.
    query: ['health'],
  }),
  offer: reads<OfferView>()('/animals/:id/offer', 'What buyers are told of an animal', {
    permission: 'sell',
  }),
  changeOffer: changes<Changed, typeof offerInput>()(
    'put',
    '/animals/:id/offer',
    'Change what buyers are told',
    { permission: 'sell' },
  ),
  changePrices: writes<void, typeof pricesInput>()('post', '/prices', 'Change prices of several animals', {
    permission: 'sell',
    status: 204,
  }),
  inquiries: lists<InquiryView>()(
    '/inquiries',
    'What visitors of public pages asked, the newest first',
    { key: 'id' },
    { permission: 'sell' },
  ),
  answerInquiry: acts<void>()('post', '/inquiries/:id/answered', 'Mark a question as answered', {
    permission: 'sell',
    status: 204,
  }),
  deleteInquiry: acts<void>()('delete', '/inquiries/:id', 'Delete a question', { permission: 'sell' }),
  persons: lists<PersonView>()(
    '/persons',
    'Buyers, and those who wait',
    { key: 'id', sorts: ['name'] },
    { permission: 'sell' },
  ),
  addPerson: writes<Created, typeof personInput>()('post', '/persons', 'Add a person', {
    permission: 'sell',
  }),
  changePerson: changes<Changed, typeof personInput>()('put', '/persons/:id', 'Change a person', {
    permission: 'sell',
  }),
  exportPerson: reads<PersonExport>()('/persons/:id/export', 'Everything that is kept on a person', {
    permission: 'sell',
  }),
  erasePerson: acts<void>()('delete', '/persons/:id', 'Erase a person; the history of animals stays', {
    permission: 'sell',
  }),
};
