import type { EggInput } from '@karyotome/contract';
import { describe, expect, test } from 'vitest';
import DayField from '../../ui/DayField.vue';
import { nextTick } from 'vue';
import { button, mounted } from '../../../test/mounted.ts';
import { farmToday } from '../../format/format.ts';
import EventPanel from './EventPanel.vue';
import LayPanel from './LayPanel.vue';

const egg = (more: Partial<EggInput> = {}): EggInput => ({
  verdict: 'good',
  massG: null,
  stuck: null,
  marked: false,
  x: 50,
  y: 50,
  ...more,
});

describe('lay day', () => {
  const panel = (eggs: EggInput[], chosen: number[] = []) =>
    mounted(LayPanel, { eggs, chosen: new Set(chosen), mayUndo: false });
  const changed = (wrapper: ReturnType<typeof panel>): EggInput[] =>
    wrapper.emitted('change')!.at(-1)![0] as EggInput[];

  test('nothing chosen, nothing to say of it', () => {
    const wrapper = panel([egg(), egg()]);
    for (const name of ['Good', 'Doubtful', 'Slug', 'Top marked', 'Stuck together', 'Take away'])
      expect(button(wrapper, name).attributes('disabled'), name).toBeDefined();
    expect(button(wrapper, 'Undo').attributes('disabled')).toBeDefined();
  });

  test('the chosen are judged, and let go', async () => {
    const wrapper = panel([egg(), egg(), egg()], [0, 2]);
    await button(wrapper, 'Slug').trigger('click');
    expect(changed(wrapper).map(({ verdict }) => verdict)).toEqual(['slug', 'good', 'slug']);
    expect([...(wrapper.emitted('update:chosen')!.at(-1)![0] as Set<number>)]).toEqual([]);
  });

  test('marks are set, or taken off where all have one', async () => {
    const some = panel([egg({ marked: true }), egg()], [0, 1]);
    await button(some, 'Top marked').trigger('click');
    expect(changed(some).map(({ marked }) => marked)).toEqual([true, true]);
    const all = panel([egg({ marked: true }), egg({ marked: true })], [0, 1]);
    await button(all, 'Top marked').trigger('click');
    expect(changed(all).map(({ marked }) => marked)).toEqual([false, false]);
  });

  test('stuck eggs are taken apart with the same button', async () => {
    const wrapper = panel([egg({ stuck: 1 }), egg({ stuck: 1 })], [0, 1]);
    await button(wrapper, 'Not stuck').trigger('click');
    expect(changed(wrapper).map(({ stuck }) => stuck)).toEqual([null, null]);
  });

  test('an egg more lies in a free place; the last egg cannot be taken away', async () => {
    const wrapper = panel([egg(), egg()], [1]);
    await button(wrapper, 'Add an egg').trigger('click');
    expect(changed(wrapper)).toHaveLength(3);
    await button(wrapper, 'Take away').trigger('click');
    expect(changed(wrapper)).toHaveLength(1);
    expect(button(panel([egg()], [0]), 'Take away').attributes('disabled')).toBeDefined();
  });

  test('the scales go from egg to egg; a comma is a point, and a wrong weight is said', async () => {
    const wrapper = panel([egg({ massG: 80 }), egg(), egg()]);
    const field = wrapper.get('input');
    expect(wrapper.text()).toContain('Egg 2 weighs, g');
    await field.setValue('500');
    await wrapper.get('form').trigger('submit');
    expect(wrapper.emitted('change')).toBeUndefined();
    expect(wrapper.text()).toContain('must be between 5 g and 300 g');
    await field.setValue('84,5');
    await wrapper.get('form').trigger('submit');
    expect(changed(wrapper).map(({ massG }) => massG)).toEqual([80, 84.5, null]);
    expect([...(wrapper.emitted('update:chosen')!.at(-1)![0] as Set<number>)]).toEqual([2]);
  });

  test('all weighed: a chosen egg can be weighed again', () => {
    expect(panel([egg({ massG: 80 })]).text()).toContain('All eggs are weighed');
    expect(panel([egg({ massG: 80 })], [0]).text()).toContain('Egg 1 weighs, g');
  });
});

describe('what is seen of the eggs', () => {
  const panel = (phase: 'check' | 'hatch', chosen: number[] = [], more = {}) =>
    mounted(EventPanel, {
      phase,
      chosen: new Set(chosen),
      busy: false,
      cutWords: 'Your protocol: eggs are never cut.',
      cutCaution: '',
      unpipped: new Set([1, 2]),
      ...more,
    });

  test('without a chosen egg, the whole clutch was looked at', async () => {
    const wrapper = panel('check');
    await button(wrapper, 'Looked at the whole clutch: fine').trigger('click');
    expect(wrapper.emitted('note')).toEqual([['check', farmToday(), { signs: [] }]]);
    expect(button(wrapper, 'Removed').attributes('disabled')).toBeDefined();
  });

  test('signs are recorded for the chosen, and do not stay for the next', async () => {
    const wrapper = panel('check', [0, 2]);
    await wrapper
      .findAll('.v-chip')
      .find((chip) => chip.text() === 'Mould')!
      .trigger('click');
    await button(wrapper, 'Record for eggs 1 and 3').trigger('click');
    await button(wrapper, 'Looked at eggs 1 and 3: fine').trigger('click');
    expect(wrapper.emitted('note')!.map(([, , details]) => details)).toEqual([
      { signs: ['mould'] },
      { signs: [] },
    ]);
  });

  test('hatching: each kind at a touch; twins of one egg only', async () => {
    const one = panel('hatch', [0]);
    for (const name of ['Pipped', 'Cut', 'Out', 'Out: twins', 'Died in the egg'])
      await button(one, name).trigger('click');
    expect(one.emitted('note')!.map(([kind, , details]) => [kind, details])).toEqual([
      ['pip', {}],
      ['cut', {}],
      ['out', { young: 1 }],
      ['out', { young: 2 }],
      ['died', {}],
    ]);
    expect(button(panel('hatch', [0, 1]), 'Out: twins').attributes('disabled')).toBeDefined();
    expect(button(panel('hatch'), 'Pipped').attributes('disabled')).toBeDefined();
  });

  test('all unpipped are chosen at once; the protocol and its caution are said', async () => {
    const wrapper = panel('hatch', [], { cutCaution: 'Learned from somebody trained.' });
    await button(wrapper, 'Choose all unpipped').trigger('click');
    expect([...(wrapper.emitted('choose')![0]![0] as Set<number>)]).toEqual([1, 2]);
    expect(wrapper.text()).toContain('eggs are never cut');
    expect(wrapper.text()).toContain('Learned from somebody trained');
  });

  test('without a day nothing is recorded', async () => {
    const wrapper = panel('check');
    wrapper.getComponent(DayField).vm.$emit('update:modelValue', null);
    await nextTick();
    await button(wrapper, 'Looked at the whole clutch: fine').trigger('click');
    expect(wrapper.emitted('note')).toBeUndefined();
    expect(wrapper.text()).toContain('is missing');
  });
});
