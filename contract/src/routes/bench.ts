import * as bench from '../bench-requests.ts';
import type { BenchView, CallsView, LabelPreview, OutsideView, SetUpProposal } from '../bench-responses.ts';
import { acts, changes, reads, writes } from './route.ts';
import type { Changed, Created, Many } from './answers.ts';

export const benchRoutes = {
  bench: reads<BenchView>()('/clutches/:id/bench', 'A clutch with what each hatchling may be'),
  calls: reads<CallsView>()('/calls', 'How identifications proved'),
  changeObservations: changes<Changed>()(
    'put',
    '/animals/:id/observations',
    'Change what was seen of an animal',
    bench.observationsChange,
  ),
  changeSorting: changes<Changed>()(
    'put',
    '/clutches/:id/sorting',
    'Change the groups of a clutch',
    bench.sortingChange,
  ),
  setUpProposal: reads<SetUpProposal>()('/clutches/:id/set-up', 'Free tubs for a clutch'),
  setUp: writes<Many>()('post', '/clutches/:id/set-up', 'Move a clutch into its tubs', bench.settingUp),
  addOpinion: writes<Created>()('post', '/animals/:id/opinions', 'Add an opinion', bench.newOpinion),
  removeOpinion: acts<void>()('delete', '/opinions/:id', 'Remove an opinion'),
  addOpinionLink: writes<Created & { path: string }>()(
    'post',
    '/clutches/:id/opinion-links',
    'Make a one-time address for opinions',
    bench.newOpinionLink,
  ),
  revokeOpinionLink: acts<void>()('delete', '/opinion-links/:id', 'Revoke a one-time address'),
  outside: reads<OutsideView>()('/opinion-links/:token', 'What a one-time address shows', {
    permission: 'open',
  }),
  outsidePicture: reads<void>()('/opinion-links/:token/pictures/:id', 'A picture at a one-time address', {
    permission: 'open',
    format: 'picture',
  }),
  answerOutside: writes<void>()(
    'post',
    '/opinion-links/:token',
    'Give opinions at a one-time address',
    bench.outsideOpinions,
    {
      permission: 'open',
      status: 204,
    },
  ),
  previewLabels: writes<LabelPreview>()(
    'post',
    '/labels/preview',
    'What labels would say',
    bench.labelOrder,
    {
      permission: 'view',
      status: 200,
    },
  ),
  printLabels: writes<Created>()('post', '/labels', 'Draw labels', bench.labelOrder),
  labels: reads<void>()('/labels/:id', 'A sheet of labels', { format: 'pdf' }),
  addCardPicture: acts<Created>()('post', '/clutches/:id/pictures', 'Add a picture of a clutch’s card', {
    file: 'picture',
    query: ['caption', 'drawing'],
  }),
};
