import type { deletion } from '../bin.ts';
import type { newPairing } from '../breeding-requests.ts';
import type * as season from '../season-requests.ts';
import type { voiding } from '../records.ts';
import type { PairingView } from '../breeding-responses.ts';
import type {
  BoardFemale,
  BoardMale,
  DoneClutchView,
  PlannerView,
  RelatedMate,
  SeasonBoardView,
} from '../season-responses.ts';
import { changes, lists, reads, writes } from './route.ts';
import type { Changed, Created } from './answers.ts';

export const breedingRoutes = {
  season: reads<SeasonBoardView>()('/season', 'The season: its rules, and how many are on the board'),
  seasonFemales: lists<BoardFemale>()('/season/females', 'Females by what can be done with them', {
    key: 'id',
    filters: ['group', 'id'],
  }),
  seasonMales: lists<BoardMale>()('/season/males', 'Males by what can be done with them', {
    key: 'id',
    filters: ['group', 'id'],
  }),
  relatedMates: lists<RelatedMate>()(
    '/season/related/:id',
    'Mates that are too closely related to one animal',
    {
      key: 'id',
    },
  ),
  changeSeasonRules: changes<Changed, typeof season.seasonRules>()(
    'put',
    '/season/rules',
    'Change the rules of the season',
    {
      permission: 'manage',
    },
  ),
  introduce: writes<{ pairingId: string; eventId: string }, typeof season.introduction>()(
    'post',
    '/season/introductions',
    'Introduce a male to a female',
    { permission: 'breed' },
  ),
  pairings: lists<PairingView>()('/pairings', 'All pairings', {
    key: 'id',
    sorts: ['season', 'startedOn'],
    filters: ['season'],
  }),
  addPairing: writes<Created, typeof newPairing>()('post', '/pairings', 'Add a pairing', {
    permission: 'breed',
  }),
  deletePairing: writes<Created, typeof deletion>()(
    'post',
    '/pairings/:id/delete',
    'Put a pairing that has no clutch into the bin',
    { permission: 'destroy' },
  ),
  addSeasonEvent: writes<Created, typeof season.newSeasonEvent>()(
    'post',
    '/pairings/:id/events',
    'Record an event of a pairing',
    { permission: 'breed' },
  ),
  changeSires: changes<Changed, typeof season.siresChange>()(
    'put',
    '/pairings/:id/sires',
    'Change the candidate sires',
    { permission: 'breed' },
  ),
  voidSeasonEvent: writes<void, typeof voiding>()(
    'post',
    '/pairing-events/:id/void',
    'Take an event out of account',
    { permission: 'breed', status: 204 },
  ),
  correctSeasonEvent: writes<Created, typeof season.seasonEventCorrection>()(
    'post',
    '/pairing-events/:id/correct',
    'Put a correct event in the place of one',
    { permission: 'breed' },
  ),
  planner: reads<PlannerView>()('/planner', 'Everything the planner computes from'),
  hatchRates: lists<DoneClutchView>()('/hatch-rates', 'Clutches of the past with what hatched', {
    key: 'clutchId',
    sorts: ['name', 'season', 'dam'],
    filters: ['season'],
  }),
};
