import type { PlannerView } from '@karyotome/contract';
import { CATALOGUE, SEASON_RULES } from '@karyotome/core';
import { flushPromises } from '@vue/test-utils';
import { beforeEach, describe, expect, test } from 'vitest';
import { reactive } from 'vue';
import { button, mounted } from '../../../test/mounted.ts';
import { plannerAnimal } from '../../../test/planner-view.ts';
import type { PlannerQuestion } from '../../workers/planner-questions.ts';
import { Planner } from '../../workers/planner.ts';
import MatesTab from './MatesTab.vue';
import PairTab from './PairTab.vue';
import SeasonTab from './SeasonTab.vue';
import { usePlannerDraft } from './planner-draft.ts';

/** Two females, two males; the second male is a half brother of the first female. */
const VIEW: PlannerView = {
  season: 2027,
  rules: SEASON_RULES,
  leftOut: 0,
  entries: [],
  animals: [
    plannerAnimal('F-1', 'female', 'het clown'),
    plannerAnimal('F-2', 'female', 'clown'),
    plannerAnimal('M-1', 'male', 'clown'),
    plannerAnimal('M-2', 'male', 'spider het clown', {
      notReady: [{ code: 'in-shed', facts: {}, side: 'against', records: [] }],
    }),
  ],
  hatch: { share: 1, eggs: 0 },
  kinship: [0.5, 0, 0.5, 0, 0, 0.5, 0.25, 0, 0, 0.5],
};
/** The real planner, asked without a worker in between. */
function planner() {
  const real = new Planner(VIEW);
  const answer = (question: PlannerQuestion): unknown => {
    if (question.ask === 'pair') return real.pair(question);
    if (question.ask === 'mates') return real.mates(question);
    if (question.ask === 'season') return real.season(question);
    throw new Error(question.ask);
  };
  return {
    ask: (question: PlannerQuestion) => ({
      answer: Promise.resolve(answer(JSON.parse(JSON.stringify(question)) as PlannerQuestion)),
      cancel: () => undefined,
    }),
  };
}
beforeEach(() => localStorage.clear());
function tab(component: Parameters<typeof mounted>[0], change: (draft: ReturnType<typeof draftOf>) => void) {
  const draft = draftOf();
  change(draft);
  const wrapper = mounted(component, {
    draft,
    view: VIEW,
    animals: [],
    catalogue: CATALOGUE,
    planner: planner(),
  });
  return { wrapper, draft };
}
const draftOf = () => reactive(usePlannerDraft().draft);

describe('one pair', () => {
  test('until both are chosen it says what to do', () => {
    expect(tab(PairTab, () => undefined).wrapper.text()).toContain('Choose a female and a male');
  });

  test('her clutches, their kinship and the target in figures that a hand can check', async () => {
    const { wrapper } = tab(PairTab, (draft) => {
      draft.dam.animalId = 'F-1';
      draft.sire.animalId = 'M-1';
      draft.target = 'clown';
    });
    await flushPromises();
    const text = wrapper.text();
    // Het times visual: half of the eggs; of six at least one misses 1 in 64.
    for (const part of [
      '1 in 2',
      '98.4%',
      '1.0',
      'the first clutch',
      '6.0 good eggs',
      '3 of her own',
      'not related',
    ])
      expect(text).toContain(part);
    expect(text).not.toContain('Before you do');
  });

  test('kin over the bound and troubled young are said before the odds', async () => {
    const { wrapper } = tab(PairTab, (draft) => {
      draft.dam.animalId = 'F-1';
      draft.sire.animalId = 'M-2';
      draft.target = 'pied';
    });
    await flushPromises();
    const text = wrapper.text();
    expect(text.indexOf('Before you do')).toBeLessThan(text.indexOf('What they can produce'));
    expect(text).toContain('inbred by 25%: over your bound of 12.5%');
    expect(text).toContain('This pair cannot give pied.');
  });
});

describe('best mates', () => {
  test('best first; what has reasons against it stands below, and can be hidden', async () => {
    const { wrapper } = tab(MatesTab, (draft) => (draft.target = 'clown'));
    await flushPromises();
    const rows = (): string[] =>
      wrapper.findAll('tbody tr').map((row) =>
        row
          .findAll('td')
          .slice(0, 3)
          .map((cell) => cell.text())
          .join(' '),
      );
    expect(rows()).toEqual(['F-2 M-1 100%', 'F-1 M-1 50%', 'F-2 M-2 50%', 'F-1 M-2 25%']);
    expect(wrapper.text()).toContain('Too closely related');
    await wrapper.get('input[type=checkbox]').setValue(true);
    expect(rows()).toEqual(['F-2 M-1 100%', 'F-1 M-1 50%']);
  });

  test('a pair is opened with both parents in their places', async () => {
    const { wrapper, draft } = tab(MatesTab, (draft) => (draft.target = 'clown'));
    await flushPromises();
    await button(wrapper, 'Look').trigger('click');
    expect(draft).toMatchObject({ tab: 'pair', dam: { animalId: 'F-2' }, sire: { animalId: 'M-1' } });
  });

  test('what no pair can give leads on to the routes', async () => {
    const { wrapper, draft } = tab(MatesTab, (draft) => (draft.target = 'clown pied'));
    await flushPromises();
    await button(wrapper, 'Find routes').trigger('click');
    expect(draft.tab).toBe('routes');
  });
});

describe('a plan for the season', () => {
  const rowsOf = (wrapper: ReturnType<typeof mounted>): string[] =>
    wrapper
      .findAll('tbody tr')
      .map((row) => [0, 2, 3, 5].map((i) => row.findAll('td')[i]!.text()).join(' | '));

  test('fills the rest for the target, within his load, and says what was traded', async () => {
    const { wrapper } = tab(SeasonTab, (draft) => (draft.targets[0]!.genes = 'clown'));
    await flushPromises();
    // Six clown young of F-2 are worth more than three of F-1; he serves one female.
    expect(rowsOf(wrapper)).toEqual([
      'F-1 | nobody | | M-1 would give 3.0, but he does more good with F-2.'.replace('| |', '|  |'),
      'F-2 | M-1 | 6.0 | ',
    ]);
    expect(wrapper.text()).toContain('6.0 wanted young');
    expect(wrapper.text()).toContain('Load: M-1 1 of 1');
  });

  test('what the keeper fixed stays', async () => {
    const { wrapper } = tab(SeasonTab, (draft) => {
      draft.targets[0]!.genes = 'clown';
      draft.fixed = { 'F-2': 'none' };
    });
    await flushPromises();
    const [first, second] = rowsOf(wrapper);
    expect(first).toContain('F-1 | M-1 | 3.0');
    expect(second).toContain('but you fixed her');
  });

  test('without a target it asks for one; targets come and go', async () => {
    const { wrapper, draft } = tab(SeasonTab, () => undefined);
    expect(wrapper.text()).toContain('Type at least one target');
    await button(wrapper, 'Another target').trigger('click');
    expect(draft.targets).toHaveLength(2);
    await button(wrapper, 'Leave out target 1').trigger('click');
    expect(draft.targets).toHaveLength(1);
  });
});
