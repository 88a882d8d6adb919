import type * as bench from '../bench-requests.ts';
import type { BenchView, CallsView, LabelPreview, OutsideView, SetUpProposal } from '../bench-responses.ts';
import { acts, changes, reads, writes } from './route.ts';
import type { Changed, Created, Many } from './answers.ts';

export const benchRoutes = {
  bench: reads<BenchView>()('/clutches/:id/bench', 'A clutch with what each hatchling may be'),
  calls: reads<CallsView>()('/calls', 'How identifications proved'),
  changeObservations: changes<Changed, typeof bench.observationsChange>()(
    'put',
    '/animals/:id/observations',
    'Change what was seen of an animal',
    { permission: 'breed' },
  ),
  changeSorting: changes<Changed, typeof bench.sortingChange>()(
    'put',
    '/clutches/:id/sorting',
    'Change the groups of a clutch',
    { permission: 'breed' },
  ),
  setUpProposal: reads<SetUpProposal>()('/clutches/:id/set-up', 'Free tubs for a clutch'),
  setUp: writes<Many, typeof bench.settingUp>()(
    'post',
    '/clutches/:id/set-up',
    'Move a clutch into its tubs',
    { permission: 'breed' },
  ),
  addOpinion: writes<Created, typeof bench.newOpinion>()('post', '/animals/:id/opinions', 'Add an opinion', {
    permission: 'breed',
  }),
  removeOpinion: acts<void>()('delete', '/opinions/:id', 'Remove an opinion', { permission: 'breed' }),
  addOpinionLink: writes<Created & { path: string }, typeof bench.newOpinionLink>()(
    'post',
    '/clutches/:id/opinion-links',
    'Make a one-time address for opinions',
    { permission: 'breed' },
  ),
  revokeOpinionLink: acts<void>()('delete', '/opinion-links/:id', 'Revoke a one-time address', {
    permission: 'breed',
  }),
  outside: reads<OutsideView>()('/opinion-links/:token', 'What a one-time address shows', {
    permission: 'open',
  }),
  outsidePicture: reads<void>()('/opinion-links/:token/pictures/:id', 'A picture at a one-time address', {
    permission: 'open',
    format: 'picture',
  }),
  answerOutside: writes<void, typeof bench.outsideOpinions>()(
    'post',
    '/opinion-links/:token',
    'Give opinions at a one-time address',
    {
      permission: 'open',
      status: 204,
    },
  ),
  previewLabels: writes<LabelPreview, typeof bench.labelOrder>()(
    'post',
    '/labels/preview',
    'What labels would say',
    {
      permission: 'view',
      status: 200,
    },
  ),
  printLabels: writes<Created, typeof bench.labelOrder>()('post', '/labels', 'Draw labels'),
  labels: reads<void>()('/labels/:id', 'A sheet of labels', { format: 'pdf' }),
  addCardPicture: acts<Created>()('post', '/clutches/:id/pictures', 'Add a picture of a clutch’s card', {
    file: 'picture',
    query: ['caption', 'drawing'],
  }),
};
