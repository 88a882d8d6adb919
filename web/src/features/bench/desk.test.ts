import { CATALOGUE, nextObservations, rank, type Observations } from '@karyotome/core';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { benchView, hatchling } from '../../../test/bench.ts';
import { button, mounted } from '../../../test/mounted.ts';
import { api } from '../../api/resources.ts';
import HatchlingTile from './HatchlingTile.vue';
import IdentifyForm from './IdentifyForm.vue';
import NextObservations from './NextObservations.vue';
import OddsTable from './OddsTable.vue';
import MarkerList from './MarkerList.vue';
import ZoneMap from './ZoneMap.vue';
import { genesInPlay, markersInPlay } from './bench-words.ts';

const one = hatchling('2601-01');
const markers = markersInPlay(CATALOGUE, genesInPlay([one]));
const ranked = (observations: Observations) => {
  const { ranking, space } = rank(one.hypotheses, observations, CATALOGUE);
  return { ranking, advice: nextObservations(space, observations, CATALOGUE, '2026-08-10') };
};

beforeEach(() => localStorage.clear());
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});

describe('zones and markers', () => {
  test('each zone says what was seen there, and where to look next', async () => {
    const { advice } = ranked({});
    const next = advice.markers.map(({ marker }) => markers.find(({ id }) => id === marker)!.zone);
    const wrapper = mounted(ZoneMap, {
      markers,
      observations: { 'lips: pale': 'seen', 'lips: two pale spots on the snout': 'not-seen' },
      next,
      modelValue: 'back',
    });
    const zone = (name: string) =>
      wrapper.findAll('[role=radio]').find((chip) => chip.text().startsWith(name))!;
    expect(zone('lips').attributes('aria-label')).toBe('lips: 1 seen, 1 not seen, of 2');
    expect(zone('neck').attributes('aria-label')).toBe('neck: nothing to distinguish here');
    expect(zone(next[0]!).attributes('aria-label')).toContain('look here next');
    expect(wrapper.findAll('svg text').map((mark) => mark.text())).toContain('look');
    await zone('eyes').trigger('click');
    expect(wrapper.emitted('update:modelValue')).toEqual([['eyes']]);
  });

  test('a marker has three answers; the one that stands is taken back by a second touch', async () => {
    const { ranking } = ranked({ 'lips: pale': 'seen' });
    const wrapper = mounted(MarkerList, {
      zone: 'lips',
      markers,
      observations: { 'lips: pale': 'seen' },
      weights: ranking.markers,
      catalogue: CATALOGUE,
      mayBreed: true,
    });
    expect(wrapper.text()).toContain('18 times likelier');
    await button(wrapper, 'Seen: lips: pale').trigger('click');
    await button(wrapper, 'Not seen: lips: pale').trigger('click');
    await button(wrapper, 'Cannot say: lips: pale').trigger('click');
    expect(wrapper.emitted('mark')).toEqual([
      ['lips: pale', null],
      ['lips: pale', 'not-seen'],
      ['lips: pale', null],
    ]);
  });

  test('look here next says what seeing it would do, and what to hold it beside', async () => {
    const { advice } = ranked({ 'lips: pale': 'seen' });
    const wrapper = mounted(NextObservations, { advice, markers, mayBreed: true });
    expect(wrapper.text()).toMatch(/Spotnose: \d/);
    expect(wrapper.text()).toContain('Hold it beside');
    await button(wrapper, 'Spotnose').trigger('click');
    expect(wrapper.emitted('compare')).toEqual([['spotnose']]);
  });
});

describe('odds and what is made of them', () => {
  test('the pair alone, before and now stand side by side, gene by gene above', async () => {
    const { ranking } = ranked({ 'lips: pale': 'seen' });
    const wrapper = mounted(OddsTable, {
      ranking,
      outcomes: benchView([]).outcomes,
      mayChoose: true,
    });
    expect(wrapper.find('.genes').text()).toContain('Pastel94.7%');
    const first = wrapper.findAll('button.line')[0]!;
    expect(first.text()).toMatch(/25%\s*25%\s*47\.4%/);
    await first.trigger('click');
    expect(wrapper.emitted('choose')).toHaveLength(1);
  });

  const form = (observations: Observations, calls: object[] = []) =>
    mounted(IdentifyForm, {
      hatchling: one,
      ...ranked(observations),
      observations,
      catalogue: CATALOGUE,
      calls,
    });
  const vm = (wrapper: ReturnType<typeof form>) =>
    wrapper.vm as unknown as { take: (phenotype: Record<string, string>) => void };
  const SEEN: Observations = { 'lips: pale': 'seen', 'back: busy pattern': 'not-seen' };

  test('a candidate is taken with what it leaves open in brackets, and sent with its markers and odds', async () => {
    const add = vi
      .spyOn(api, 'addRecord')
      .mockResolvedValue({ id: 'r', warnings: [], isWarningPending: false });
    const wrapper = form(SEEN);
    vm(wrapper).take({ pastel: 'pastel' });
    await flushPromises();
    expect(wrapper.find('input').element.value).toBe('Pastel (Spotnose)');
    expect(wrapper.text()).toContain('Not ruled out');
    await wrapper.findAll('input').at(-2)!.setValue('Ida');
    await wrapper.find('form').trigger('submit');
    await flushPromises();
    const { body } = add.mock.lastCall![1] as { body: Record<string, unknown> };
    expect(body).toMatchObject({ genes: 'Pastel (Spotnose)', sure: 'probable', markers: SEEN });
    expect(body['odds']).toMatchObject({ pBefore: 0.25 });
    expect((body['alternatives'] as { genes: string }[])[0]!.genes).toBe('Pastel Spotnose');
    expect(wrapper.emitted('done')).toHaveLength(1);
  });

  test('a call against the odds asks for a reason, one the pair cannot give is said to be', async () => {
    const wrapper = form(SEEN);
    vm(wrapper).take({ spotnose: 'spotnose' });
    await flushPromises();
    expect(wrapper.text()).toContain('Why against the odds');
    await wrapper.find('input').setValue('Pied');
    expect(wrapper.text()).toContain('Not among what this pair can give');
  });

  test('how sure is proposed from one’s own calls where enough of them were settled', async () => {
    const wrapper = form(SEEN, [{ phenotype: 'pastel', right: 6, settled: 12 }]);
    vm(wrapper).take({ pastel: 'pastel' });
    await flushPromises();
    expect(wrapper.text()).toContain('6 of 12 proved right');
    expect(wrapper.find('.sure .v-btn--active').text()).toBe('possible');
  });
});

describe('a hatchling on the table', () => {
  const tile = (more: object, observations: Observations = {}) =>
    mounted(HatchlingTile, { hatchling: hatchling('2601-01', more), ranking: ranked(observations).ranking });

  test('says how open it is, what leads, what is left to do', () => {
    expect(tile({ isTwin: true }).text()).toContain('twin, two from one egg');
    expect(tile({}).text()).toContain('identify, sex, weigh, picture, label, tub');
    expect(tile({}, { 'lips: pale': 'seen', 'back: busy pattern': 'not-seen' }).text()).toContain(
      'Pastel 77.5%',
    );
  });

  test('says what contradicts', () => {
    expect(tile({ sexDoubts: ['Banana in a female'] }).text()).toContain('contradicts its parents');
  });
});
