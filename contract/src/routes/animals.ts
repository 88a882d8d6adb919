import type * as husbandry from '../husbandry-requests.ts';
import type { AnimalFilterView, AnimalListView, animalListInput } from '../animal-filter.ts';
import type { animalChange, newAnimal } from '../animal-requests.ts';
import type { correction, newRecord, voiding } from '../records.ts';
import type { SearchView } from '../search.ts';
import type { BinEntry, deletion, Restored } from '../bin.ts';
import type { AnimalSummary } from '../animal-summary.ts';
import type { AnimalView, GrownLook } from '../animal-responses.ts';
import type { RecordWarning } from '../record-responses.ts';
import { acts, changes, lists, reads, writes } from './route.ts';
import type { Changed, Created } from './answers.ts';
import type { pictureEdit } from '../picture-requests.ts';
import type { GrowthLine } from '../growth.ts';

export const animalsRoutes = {
  animals: lists<AnimalSummary>()('/animals', 'All animals', {
    key: 'id',
    sorts: ['number', 'name', 'sex', 'label', 'hatchedOn', 'massG', 'weighedOn', 'tub', 'status'],
    // Several ids or states are separated by commas.
    filters: ['id', 'sex', 'status', 'clutchId'],
    otherFilters: ['search'],
  }),
  animalFilter: reads<AnimalFilterView>()('/animal-filter', 'How a search of animals is read', {
    query: ['text'],
  }),
  animalLists: lists<AnimalListView>()('/animal-lists', 'Lists of animals that are kept under a name', {
    key: 'id',
  }),
  grownLooks: reads<GrownLook[]>()(
    '/animals/:id/grown',
    'Pictures of older animals that look the same, those next to grown first',
  ),
  growth: reads<GrowthLine[]>()(
    '/growth',
    'Weights of animals with their hatching days, to be laid over one another',
    {
      query: ['clutch', 'seasonOf', 'id'],
    },
  ),
  addAnimalList: writes<Created, typeof animalListInput>()('post', '/animal-lists', 'Keep a list of animals'),
  changeAnimalList: changes<Changed, typeof animalListInput>()(
    'put',
    '/animal-lists/:id',
    'Change a list of animals',
  ),
  removeAnimalList: acts<void>()('delete', '/animal-lists/:id', 'Remove a list of animals', {
    isVersioned: true,
  }),
  search: reads<SearchView>()('/search', 'Animals, clutches and people by words', { query: ['q'] }),
  animal: reads<AnimalView>()('/animals/:id', 'One animal'),
  addAnimal: writes<Created, typeof newAnimal>()('post', '/animals', 'Add an animal', {
    permission: 'breed',
  }),
  changeAnimal: changes<Created & Changed, typeof animalChange>()(
    'patch',
    '/animals/:id',
    'Change name, parents, status or note',
    { permission: 'breed' },
  ),
  deleteAnimal: writes<Created, typeof deletion>()(
    'post',
    '/animals/:id/delete',
    'Put an animal into the bin, with all its records and pictures',
    { permission: 'destroy' },
  ),
  bin: lists<BinEntry>()(
    '/bin',
    'What was deleted and can be restored',
    { key: 'id', filters: ['kind'] },
    { permission: 'destroy' },
  ),
  restoreFromBin: acts<Restored>()('post', '/bin/:id/restore', 'Restore what was deleted', {
    permission: 'destroy',
  }),
  eraseFromBin: acts<void>()('delete', '/bin/:id', 'Erase what was deleted, for good', {
    permission: 'destroy',
  }),
  addRecord: writes<Created & { warnings: RecordWarning[]; isWarningPending: boolean }, typeof newRecord>()(
    'post',
    '/animals/:id/records',
    'Record something of an animal',
  ),
  voidRecord: writes<void, typeof voiding>()('post', '/records/:id/void', 'Take a record out of account', {
    status: 204,
  }),
  correctRecord: writes<Created, typeof correction>()(
    'post',
    '/records/:id/correct',
    'Put a correct record in the place of one',
  ),
  voidRecords: writes<void, typeof husbandry.takenBack>()(
    'post',
    '/records/void',
    'Take several records out of account',
    {
      status: 204,
    },
  ),
  addPicture: acts<Created>()('post', '/animals/:id/pictures', 'Add a picture of an animal', {
    file: 'picture',
    query: ['caption', 'drawing'],
  }),
  picture: reads<void>()('/pictures/:id', 'A picture', { format: 'picture', query: ['copy', 'v'] }),
  editPicture: writes<Created, typeof pictureEdit>()(
    'post',
    '/pictures/:id/edit',
    'Turn and crop a picture, or show it as it came',
  ),
  deletePicture: acts<void>()('delete', '/pictures/:id', 'Put a picture into the bin'),
};
