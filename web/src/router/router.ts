import { createRouter, createWebHistory } from 'vue-router';
import { useSession } from '../stores/session.ts';

declare module 'vue-router' {
  interface RouteMeta {
    title: string;
    /** Open to everybody, without a session. */
    open?: boolean;
    /** What whoever goes there must be allowed to; whoever may look, where nothing is said. */
    needs?: 'breed' | 'sell' | 'manage' | 'destroy';
    /** What it is looked for by, beside its title. */
    words?: string;
  }
}

export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (to, _from, saved) => saved ?? (to.hash ? { el: to.hash, top: 80 } : { top: 0 }),
  routes: [
    { path: '/', redirect: '/today' },
    {
      path: '/sign-in',
      component: () => import('../features/sign-in/SignInView.vue'),
      meta: { title: 'Sign in', open: true },
    },
    {
      path: '/verify',
      component: () => import('../features/verify/VerifyView.vue'),
      meta: { title: 'Verify a statement', open: true },
    },
    {
      path: '/opinion/:token',
      component: () => import('../features/outside/OutsideView.vue'),
      meta: { title: 'What do you see?', open: true },
    },
    {
      path: '/today',
      component: () => import('../features/today/TodayView.vue'),
      meta: { title: 'Today', words: 'due tasks list home' },
    },
    {
      path: '/today/feeding',
      component: () => import('../features/feeding/FeedingNightView.vue'),
      meta: { title: 'Feeding night', words: 'thaw freezer prey tonight meals' },
    },
    {
      path: '/today/sheds',
      component: () => import('../features/today/ShedsView.vue'),
      meta: { title: 'Sheds', words: 'shed cycle blue soak' },
    },
    {
      path: '/today/health',
      component: () => import('../features/health/HealthView.vue'),
      meta: { title: 'Health', words: 'ill sick signs mites quarantine treatment doses veterinarian' },
    },
    {
      path: '/today/plans',
      component: () => import('../features/feeding/PlansView.vue'),
      meta: { title: 'Plans and rules', words: 'feeding rules prey sizes' },
    },
    {
      path: '/rounds',
      component: () => import('../features/rounds/RoundsView.vue'),
      meta: { title: 'Rounds', words: 'walk feed log scan' },
    },
    {
      path: '/season',
      component: () => import('../features/season/BoardView.vue'),
      meta: { title: 'Season', words: 'board breeding pairings females males introduce' },
    },
    {
      path: '/season/planner',
      component: () => import('../features/planner/PlannerView.vue'),
      meta: { title: 'Planner', needs: 'breed', words: 'odds punnett offspring routes plan pair' },
    },
    {
      path: '/season/projects',
      component: () => import('../features/projects/ProjectsView.vue'),
      meta: { title: 'Projects', words: 'goal target route luck holdback plan' },
    },
    {
      path: '/season/projects/:id',
      component: () => import('../features/projects/ProjectView.vue'),
      meta: { title: 'Project' },
    },
    {
      path: '/season/incubators',
      component: () => import('../features/climate/IncubatorsView.vue'),
      meta: { title: 'Incubators', words: 'eggs temperature humidity alarm' },
    },
    {
      path: '/season/past',
      component: () => import('../features/season/PastView.vue'),
      meta: { title: 'Past seasons', words: 'history hatch rates clutches' },
    },
    {
      path: '/season/clutches/:id',
      component: () => import('../features/eggs/EggsView.vue'),
      meta: { title: 'Eggs' },
    },
    {
      path: '/bench',
      component: () => import('../features/bench/BenchListView.vue'),
      meta: { title: 'Bench', words: 'identify hatchlings clutches sort' },
    },
    {
      path: '/bench/calls',
      component: () => import('../features/bench/CallsView.vue'),
      meta: { title: 'How calls proved' },
    },
    {
      path: '/bench/:id',
      component: () => import('../features/bench/BenchView.vue'),
      meta: { title: 'Bench' },
    },
    {
      path: '/racks',
      component: () => import('../features/racks/RacksView.vue'),
      meta: { title: 'Racks', words: 'tubs room move shelves' },
    },
    {
      path: '/racks/forecast',
      component: () => import('../features/room/ForecastView.vue'),
      meta: { title: 'Will the room last', words: 'space places year capacity' },
    },
    {
      path: '/racks/climate',
      component: () => import('../features/climate/RoomsView.vue'),
      meta: { title: 'Climate', words: 'room temperature humidity sensor' },
    },
    {
      path: '/racks/moves',
      component: () => import('../features/racks/LearnedView.vue'),
      meta: { title: 'What became of moves', words: 'learned outcome' },
    },
    {
      path: '/racks/ladders',
      component: () => import('../features/racks/LaddersView.vue'),
      meta: { title: 'Ladders', words: 'enclosure sizes weight steps' },
    },
    {
      path: '/animals',
      component: () => import('../features/animals/AnimalsView.vue'),
      meta: { title: 'Animals', words: 'collection list snakes' },
    },
    {
      path: '/animals/import',
      component: () => import('../features/imports/ImportsView.vue'),
      meta: { title: 'Import', needs: 'breed', words: 'csv spreadsheet bring in upload' },
    },
    {
      path: '/animals/import/:id',
      component: () => import('../features/imports/ImportDraft.vue'),
      meta: { title: 'Import' },
    },
    {
      path: '/animals/take-in',
      component: () => import('../features/taking-in/TakeInView.vue'),
      meta: { title: 'Take in', needs: 'breed', words: 'statement lineage buy bought' },
    },
    {
      path: '/animals/contradictions',
      component: () => import('../features/contradictions/ContradictionsView.vue'),
      meta: { title: 'Contradictions', words: 'errors wrong records' },
    },
    {
      path: '/animals/:id/kin',
      component: () => import('../features/kin/KinView.vue'),
      meta: { title: 'Kin' },
    },
    {
      path: '/genes',
      component: () => import('../features/genes/GenesView.vue'),
      meta: { title: 'Genes', words: 'catalogue morphs alleles loci markers' },
    },
    {
      path: '/animals/:id',
      component: () => import('../features/animal/AnimalView.vue'),
      meta: { title: 'Animal' },
    },
    {
      path: '/showcase',
      component: () => import('../features/showcase/ShowcaseView.vue'),
      meta: { title: 'Showcase', words: 'published pages sale offers' },
    },
    {
      path: '/showcase/sales',
      component: () => import('../features/showcase/SalesView.vue'),
      meta: { title: 'Sales', needs: 'sell', words: 'sold reserved buyers money' },
    },
    {
      path: '/showcase/inbox',
      component: () => import('../features/showcase/InboxView.vue'),
      meta: { title: 'Inbox', needs: 'sell', words: 'questions inquiries mail' },
    },
    {
      path: '/showcase/letters',
      component: () => import('../features/showcase/LettersView.vue'),
      meta: { title: 'Letters', needs: 'sell', words: 'mails drafts' },
    },
    {
      path: '/showcase/waiting',
      component: () => import('../features/showcase/WaitingView.vue'),
      meta: { title: 'Waiting list', needs: 'sell', words: 'wishes waiting list' },
    },
    {
      path: '/showcase/people',
      component: () => import('../features/showcase/PeopleView.vue'),
      meta: { title: 'People', needs: 'sell', words: 'buyers address book contacts' },
    },
    {
      path: '/showcase/desk/:id',
      component: () => import('../features/showcase/DeskView.vue'),
      meta: { title: 'Who stays' },
    },
    {
      path: '/start',
      component: () => import('../features/sign-in/StartView.vue'),
      meta: { title: 'First start', open: true },
    },
    {
      path: '/join',
      component: () => import('../features/sign-in/JoinView.vue'),
      meta: { title: 'Invitation', open: true },
    },
    {
      path: '/reset',
      component: () => import('../features/sign-in/ResetView.vue'),
      meta: { title: 'New password', open: true },
    },
    {
      path: '/settings/account',
      component: () => import('../features/account/AccountView.vue'),
      meta: { title: 'Your account', words: 'password passkey sign-in tokens second factor devices' },
    },
    {
      path: '/settings/history',
      component: () => import('../features/history/HistoryView.vue'),
      meta: { title: 'History', needs: 'manage', words: 'audit log who changed' },
    },
    {
      path: '/settings/bin',
      component: () => import('../features/settings/BinView.vue'),
      meta: { title: 'Deleted', needs: 'destroy', words: 'bin trash restore' },
    },
    {
      path: '/settings/people',
      component: () => import('../features/people/PeopleView.vue'),
      meta: { title: 'People', needs: 'manage', words: 'members keepers helpers invite roles' },
    },
    {
      path: '/settings',
      component: () => import('../features/settings/SettingsView.vue'),
      meta: { title: 'Settings', words: 'units time zone backup export calendar webhooks' },
    },
    {
      path: '/:rest(.*)*',
      component: () => import('../layout/NotFoundView.vue'),
      meta: { title: 'Not found', open: true },
    },
  ],
});

router.beforeEach(async (to) => {
  document.title = `${to.meta.title} · Karyotome`;
  if (to.meta.open) return true;
  if (await useSession().ensure()) return true;
  return { path: '/sign-in', query: { to: to.fullPath } };
});
