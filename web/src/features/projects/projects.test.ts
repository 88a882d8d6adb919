import type { PlannerView, ProjectView } from '@karyotome/contract';
import { SEASON_RULES, type Route } from '@karyotome/core';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import { plannerAnimal } from '../../../test/planner-view.ts';
import { api } from '../../api/resources.ts';
import type { PlannerQuestion, SimulateQuestion } from '../../workers/planner-questions.ts';
import { Planner } from '../../workers/planner.ts';
import ProjectPlan from './ProjectPlan.vue';
import ProjectSeasons from './ProjectSeasons.vue';
import { planState, seasonFor } from './project-plan.ts';

const owned = (animalId: string) => ({ kind: 'owned' as const, animalId });
const ROUTE: Route = {
  roughYears: 4,
  steps: [
    {
      dam: owned('F-1'),
      sire: owned('M-1'),
      keep: { sex: 'female', phenotype: { clown: 'clown/clown' }, label: 'Clown' },
      perEgg: 1 / 8,
      inbreeding: 0,
    },
    { dam: { kind: 'held-back', step: 0 }, sire: owned('M-1'), keep: null, perEgg: 1 / 2, inbreeding: 1 / 4 },
  ],
};
const plannerOf = (...animals: PlannerView['animals']): PlannerView => ({
  season: 2027,
  rules: SEASON_RULES,
  leftOut: 0,
  entries: [],
  animals,
  hatch: { share: 1, eggs: 0 },
  kinship: Array.from({ length: (animals.length * (animals.length + 1)) / 2 }, () => 0),
});
const PLANNER = plannerOf(
  plannerAnimal('F-1', 'female', 'het clown', { readyIn: 1.2 }),
  plannerAnimal('M-1', 'male', 'het clown'),
);
const animalOf = (id: string, step: number | null): ProjectView['projectAnimals'][number] =>
  ({
    id: `in-${id}`,
    animal: { id, number: id, label: '', sex: 'female' },
    reason: null,
    step,
    addedOn: '2026-12-01',
    chances: [0],
  }) as unknown as ProjectView['projectAnimals'][number];
const project = (more: Partial<ProjectView> = {}): ProjectView => ({
  id: 'p',
  name: 'Clown',
  targets: ['Clown'],
  note: null,
  startedOn: '2026-12-01',
  endedOn: null,
  version: 1,
  animals: 2,
  plan: { target: 'Clown', holdBack: 2, bought: null, route: ROUTE, chosenOn: '2026-12-01' },
  shared: [],
  projectAnimals: [animalOf('F-1', null), animalOf('M-1', null)],
  pairings: [],
  luck: [null],
  others: [],
  ...more,
});
/** The real planner without a worker in between; a route is played through 300 times. */
function workerOf(view: PlannerView) {
  const real = new Planner(view);
  const answer = (question: PlannerQuestion): unknown => {
    if (question.ask === 'route-odds') return real.routeOdds(question);
    const simulation = real.simulation(question as SimulateQuestion);
    simulation.play(300);
    return simulation.result();
  };
  return {
    ask: (question: PlannerQuestion) => ({
      answer: Promise.resolve(answer(question)),
      cancel: () => undefined,
    }),
  };
}
beforeEach(() => localStorage.clear());
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});

describe('what is left of a plan', () => {
  test('the first pairing waits for her, the second for their young', () => {
    const { steps, missing } = planState(project(), PLANNER)!;
    expect(missing).toEqual([]);
    expect(steps.map(({ number, readyIn }) => [number, readyIn])).toEqual([
      [0, 1.2],
      [1, null],
    ]);
    expect(seasonFor(1.2, 2027)).toBe(2029);
    expect(seasonFor(0, 2027)).toBe(2027);
  });

  test('who was held back takes the step’s place, and is missing as long as its sex is not known', () => {
    const held = project({ projectAnimals: [animalOf('M-1', null), animalOf('H-1', 0)] });
    expect(planState(held, PLANNER)!.missing).toEqual(['H-1']);
    const sexed = plannerOf(...PLANNER.animals, plannerAnimal('H-1', 'female', 'clown', { readyIn: 3 }));
    const { steps } = planState(held, sexed)!;
    expect(steps).toMatchObject([{ number: 1, readyIn: 3, pair: { dam: { id: 'H-1' } } }]);
  });

  test('without a route there is none', () => {
    expect(planState(project({ plan: null }), PLANNER)).toBeNull();
  });
});

describe('on the page', () => {
  const shown = async (view: ProjectView, planner = PLANNER) => {
    const wrapper = mounted(ProjectPlan, {
      project: view,
      planner,
      worker: workerOf(planner),
      mayBreed: true,
    });
    await flushPromises();
    return wrapper;
  };

  test('the odds are those of today, and a pairing is planned for the season in which it can be made', async () => {
    const plan = vi.spyOn(api, 'planPairing').mockResolvedValue({ id: 'n' });
    const wrapper = await shown(project());
    expect(wrapper.text()).toContain('Hold back a female Clown: 1 in 8 per egg');
    expect(wrapper.text()).toContain('It can be made in about a year.');
    expect(wrapper.text()).toContain('Played from today');
    await button(wrapper, 'Plan for 2029').trigger('click');
    await flushPromises();
    expect(plan).toHaveBeenCalledWith('p', { season: 2029, damId: 'F-1', sireId: 'M-1' });
    await button(wrapper, 'Held back…').trigger('click');
    expect(wrapper.emitted('held')).toEqual([[0]]);
  });

  test('a route whose parents turned out not to carry it is said to lead nowhere', async () => {
    const planner = plannerOf(
      plannerAnimal('F-1', 'female', 'normal'),
      plannerAnimal('M-1', 'male', 'het clown'),
    );
    const wrapper = await shown(project(), planner);
    expect(wrapper.text()).toContain('Hold back a female Clown: 0% per egg');
    expect(wrapper.text()).toContain('cannot come of this route any more');
  });

  test('season by season: what was planned, made and hatched', () => {
    const parent = (id: string) => ({ id, number: id }) as unknown as ProjectView['pairings'][number]['dam'];
    const pairing = (more: object): ProjectView['pairings'][number] => ({
      plannedId: null,
      pairingId: null,
      season: 2027,
      dam: parent('F-1'),
      sires: [parent('M-1')],
      clutches: [],
      ...more,
    });
    const clutch = {
      id: 'c',
      name: '2501',
      laidOn: '2026-01-02',
      hatchedOn: '2026-03-02',
      eggs: 6,
      hatched: 5,
      outcomes: [{ young: 5, hits: 2, open: 1, expected: 1.25 }],
    };
    const view = project({
      pairings: [
        pairing({ plannedId: 'n' }),
        pairing({ pairingId: 'q', plannedId: 'o', season: 2026, clutches: [clutch] }),
      ],
    });
    const wrapper = mounted(ProjectSeasons, { project: view, mayBreed: true });
    expect(wrapper.text()).toContain('planned, not made yet');
    expect(wrapper.text()).toContain('planned and made');
    expect(wrapper.text()).toContain('2 of 5 Clown, 1.3 expected, 1 not known yet');
    expect(wrapper.findAll('button').map((one) => one.text())).toEqual(['Plan no more']);
  });
});
