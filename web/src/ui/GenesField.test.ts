import { mount } from '@vue/test-utils';
import { describe, expect, test } from 'vitest';
import { createVuetify } from 'vuetify';
import GenesField from './GenesField.vue';

const field = (text: string, maySettle = false) =>
  mount(GenesField, { props: { modelValue: text, maySettle }, global: { plugins: [createVuetify()] } });

describe('a field for genes', () => {
  test('says what it read, and the name of the combination beside it', () => {
    const text = field('pastel spider het clown').text();
    expect(text).toContain('Read as Pastel Spider Het Clown');
    expect(text).toContain('also called Bumblebee Het Clown');
  });

  test('marks in the text what it did not read, and a choice takes just that place', async () => {
    const wrapper = field('Pied het Clown Pied');
    expect(wrapper.findAll('mark').map((mark) => mark.text())).toEqual(['Pied']);
    // The second one: what stands before it stays.
    await wrapper
      .findAll('.v-chip')
      .find((chip) => chip.text() === 'Het Pied')!
      .trigger('click');
    expect(wrapper.emitted('update:modelValue')!.at(-1)).toEqual(['Pied het Clown Het Pied']);
  });

  test('hands on a choice that is to hold from now on', async () => {
    const wrapper = field('het axanthic', true);
    await wrapper
      .findAll('.v-chip')
      .find((chip) => chip.text() === 'Het Axanthic B')!
      .trigger('click');
    expect(wrapper.emitted('update:modelValue')!.at(-1)).toEqual(['Het Axanthic B']);
    const keep = wrapper.findAll('button').find((button) => button.text().startsWith('Always read'))!;
    expect(keep.text()).toContain('“axanthic” as Axanthic B');
    await keep.trigger('click');
    expect(wrapper.emitted('settle')).toEqual([['axanthic', 'Axanthic B']]);
  });

  test('offers a line that nobody knows as one of the collection’s own, where that may be said', async () => {
    const wrapper = field('Axanthic (Riverbend)', true);
    const add = wrapper.findAll('.v-chip').find((chip) => chip.text().startsWith('Add Axanthic Riverbend'))!;
    await add.trigger('click');
    expect(wrapper.emitted('addLine')).toEqual([['Axanthic Riverbend']]);
    expect(field('Axanthic (Riverbend)').text()).not.toContain('Add Axanthic');
  });
});
