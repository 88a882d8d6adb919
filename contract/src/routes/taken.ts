import type { breederInput } from '../taken-requests.ts';
import type { BreederView, TakeInPreview, TakenView } from '../taken-responses.ts';
import { acts, changes, lists } from './route.ts';
import type { Changed, Many } from './answers.ts';

export const takenRoutes = {
  previewTakeIn: acts<TakeInPreview[]>()(
    'post',
    '/taken/preview',
    'What taking in a statement or a hand-over package would do',
    { permission: 'breed', file: 'lineage', status: 200 },
  ),
  takeIn: acts<Many>()('post', '/taken', 'Take in a statement or a hand-over package', {
    permission: 'breed',
    file: 'lineage',
    query: ['as', 'trust'],
  }),
  taken: lists<TakenView>()('/taken', 'Statements of other breeders, the latest first', { key: 'id' }),
  removeTaken: acts<void>()('delete', '/taken/:id', 'Let a taken statement count no more', {
    permission: 'breed',
  }),
  breeders: lists<BreederView>()('/breeders', 'Other breeders, by name', { key: 'id', sorts: ['name'] }),
  changeBreeder: changes<Changed, typeof breederInput>()(
    'put',
    '/breeders/:id',
    "Change how far a breeder's word counts",
    { permission: 'breed' },
  ),
  handOver: acts<{ path: string }>()(
    'post',
    '/animals/:id/hand-over',
    "Make an address at which an animal's package can be fetched once",
    { permission: 'sell' },
  ),
};
