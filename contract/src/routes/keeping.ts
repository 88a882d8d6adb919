import type * as husbandry from '../husbandry-requests.ts';
import type { HealthCaseView, MiteWatchView } from '../health-responses.ts';
import type {
  FeedingLessons,
  FeedingNightLine,
  FeedingView,
  RoomView,
  RoundRack,
  RoundResult,
  RoundView,
  ShedsView,
} from '../husbandry-responses.ts';
import type { voiding } from '../records.ts';
import type { TodayView } from '../today-responses.ts';
import type { Changed, Created } from './answers.ts';
import { acts, changes, lists, reads, writes } from './route.ts';

export const keepingRoutes = {
  today: reads<TodayView>()('/today', 'What needs a person today', {
    query: ['limit', 'after', 'act', 'by'],
  }),
  round: reads<RoundView>()('/rounds', 'The racks of a round, in walking order'),
  roundRack: reads<RoundRack>()('/rounds/racks/:id', 'What a round needs of one rack'),
  sheds: reads<ShedsView>()('/sheds', 'Who is in shed, in walking order'),
  sendRound: writes<{ results: RoundResult[] }, typeof husbandry.roundEntries>()(
    'post',
    '/rounds/entries',
    'Record the entries of a round',
    {
      // Each entry is checked by itself: what is wrong with one is not the others' fault.
      validation: { looseList: 'entries' },
      status: 200,
    },
  ),
  healthCases: lists<HealthCaseView>()(
    '/health-cases',
    'Animals under treatment, in quarantine or with signs, by number',
    { key: 'id' },
  ),
  miteWatches: lists<MiteWatchView>()(
    '/mite-watches',
    'Racks in which mites were seen, and who is to be looked through',
    {
      key: 'id',
    },
  ),
  feeding: reads<FeedingView>()('/feeding', 'The freezer, rules and plans of feeding'),
  feedingNight: lists<FeedingNightLine>()('/feeding/night', 'Meals tonight, in walking order', {
    key: 'id',
  }),
  feedingLessons: reads<FeedingLessons>()('/feeding/lessons', 'What worked, and the days between meals'),
  changeFeedingRules: changes<Changed, typeof husbandry.rulesChange>()(
    'put',
    '/feeding/rules',
    'Change the rules of feeding',
    {
      permission: 'manage',
    },
  ),
  addFeedingPlan: writes<Created, typeof husbandry.planInput>()(
    'post',
    '/feeding/plans',
    'Add a feeding plan',
  ),
  changeFeedingPlan: changes<Created, typeof husbandry.planInput>()(
    'put',
    '/feeding/plans/:key',
    'Change a feeding plan',
  ),
  removeFeedingPlan: acts<void>()('delete', '/feeding/plans/:key', 'Remove a feeding plan', {
    isVersioned: true,
  }),
  addStock: writes<Created, typeof husbandry.newStockEntry>()(
    'post',
    '/stock',
    'Add to the freezer, or count it',
  ),
  voidStock: writes<void, typeof voiding>()(
    'post',
    '/stock/:id/void',
    'Take an entry of the freezer out of account',
    {
      status: 204,
    },
  ),
  room: reads<RoomView>()('/room', 'What the forecast of places computes from'),
  changeRoomAssumptions: changes<Changed, typeof husbandry.roomAssumptions>()(
    'put',
    '/room/assumptions',
    'Change the assumptions of the forecast',
    { permission: 'manage' },
  ),
};
