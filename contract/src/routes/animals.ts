import * as husbandry from '../husbandry-requests.ts';
import { animalChange, newAnimal } from '../animal-requests.ts';
import { correction, newRecord, voiding } from '../records.ts';
import type { AnimalSummary } from '../animal-summary.ts';
import type { AnimalView, ImportPreview } from '../animal-responses.ts';
import type { RecordWarning } from '../record-responses.ts';
import { acts, changes, lists, reads, writes } from './route.ts';
import type { Changed, Created } from './answers.ts';

export const animalsRoutes = {
  animals: lists<AnimalSummary>()('/animals', 'All animals', {
    key: 'id',
    sorts: ['number', 'name', 'sex', 'label', 'hatchedOn', 'massG', 'weighedOn', 'tub', 'status'],
    // Several states are separated by commas.
    filters: ['id', 'sex', 'status', 'clutchId'],
    otherFilters: ['search'],
  }),
  animal: reads<AnimalView>()('/animals/:id', 'One animal'),
  addAnimal: writes<Created>()('post', '/animals', 'Add an animal', newAnimal),
  changeAnimal: changes<Created & Changed>()(
    'patch',
    '/animals/:id',
    'Change name, parents, status or note',
    animalChange,
  ),
  deleteAnimal: acts<void>()('delete', '/animals/:id', 'Delete an animal entered by mistake', {
    permission: 'destroy',
  }),
  addRecord: writes<Created & { warnings: RecordWarning[]; isWarningPending: boolean }>()(
    'post',
    '/animals/:id/records',
    'Record something of an animal',
    newRecord,
  ),
  voidRecord: writes<void>()('post', '/records/:id/void', 'Take a record out of account', voiding, {
    status: 204,
  }),
  correctRecord: writes<Created>()(
    'post',
    '/records/:id/correct',
    'Put a correct record in the place of one',
    correction,
  ),
  voidRecords: writes<void>()(
    'post',
    '/records/void',
    'Take several records out of account',
    husbandry.takenBack,
    {
      status: 204,
    },
  ),
  previewImport: acts<ImportPreview>()('post', '/imports/preview', 'What a file of animals would add', {
    permission: 'view',
    file: 'csv',
    status: 200,
  }),
  runImport: acts<{ imported: number }>()('post', '/imports', 'Add the animals of a file', { file: 'csv' }),
  addPicture: acts<Created>()('post', '/animals/:id/pictures', 'Add a picture of an animal', {
    file: 'picture',
    query: ['caption', 'drawing'],
  }),
  picture: reads<void>()('/pictures/:id', 'A picture', { format: 'picture', query: ['copy'] }),
  deletePicture: acts<void>()('delete', '/pictures/:id', 'Remove a picture'),
};
