import { mount } from '@vue/test-utils';
import { describe, expect, test } from 'vitest';
import { createVuetify } from 'vuetify';
import OutcomeList from './OutcomeList.vue';
import StateBlock from './StateBlock.vue';
import SureText from './SureText.vue';

const global = { plugins: [createVuetify()] };

describe('how sure, in type', () => {
  test.each([
    [1, 'certain', 'Clown'],
    [0.9, 'probable', 'Clown'],
    [0.2, 'possible', '(Clown)'],
  ])('%f is %s', (p, kind, text) => {
    const span = mount(SureText, { props: { text: 'Clown', p } }).get('.sure');
    expect(span.classes()).toContain(kind);
    expect(span.text().replace(/\s/g, '')).toBe(text);
  });

  test('refuted is struck out, whatever the odds were', () => {
    expect(
      mount(SureText, { props: { text: 'Clown', p: 1, refuted: true } })
        .get('.sure')
        .classes(),
    ).toContain('refuted');
  });
});

describe('what a pair can produce', () => {
  const outcome = {
    label: 'Banana',
    p: 0.5,
    pMale: 0.465,
    pFemale: 0.035,
    carries: ['66% Het Clown'],
    appearance: {},
  };
  test('shows odds, what is carried, and the shares by sex where they differ', () => {
    const text = mount(OutcomeList, { props: { outcomes: [outcome] }, global }).text();
    expect(text).toContain('50%');
    expect(text).toContain('66% Het Clown');
    expect(text).toContain('♂ 46.5%, ♀ 3.5%');
  });

  test('is chosen from by button, and only where that is asked for', async () => {
    const list = mount(OutcomeList, { props: { outcomes: [outcome], selectable: true }, global });
    await list.get('button').trigger('click');
    expect(list.emitted('choose')![0]).toEqual([outcome]);
    expect(
      mount(OutcomeList, { props: { outcomes: [outcome] }, global })
        .find('button')
        .exists(),
    ).toBe(false);
  });
});

describe('a place without content', () => {
  test('says what to do first, or what went wrong', async () => {
    const empty = mount(StateBlock, {
      props: { status: 'success', isEmpty: true, emptyTitle: 'No animal yet' },
      slots: { default: 'list' },
      global,
    });
    expect(empty.text()).toContain('No animal yet');
    expect(empty.text()).not.toContain('list');
    const failed = mount(StateBlock, { props: { status: 'error', error: new Error('unreachable') }, global });
    expect(failed.text()).toContain('unreachable');
    await failed.get('button').trigger('click');
    expect(failed.emitted('retry')).toHaveLength(1);
  });
});
