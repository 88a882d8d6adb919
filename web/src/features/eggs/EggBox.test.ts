import { describe, expect, test } from 'vitest';
import { mounted } from '../../../test/mounted.ts';
import EggBox from './EggBox.vue';
import type { BoxEgg } from './egg-words.ts';

const egg = (more: Partial<BoxEgg> = {}): BoxEgg => ({
  verdict: 'good',
  massG: 80,
  stuck: null,
  marked: false,
  x: 50,
  y: 50,
  state: null,
  ...more,
});
const state = (more: Partial<NonNullable<BoxEgg['state']>> = {}): NonNullable<BoxEgg['state']> => ({
  stage: 'in-egg',
  since: null,
  wasCut: false,
  young: 0,
  signs: [],
  checkedOn: null,
  worries: [],
  ...more,
});
const box = (eggs: BoxEgg[], more = {}) =>
  mounted(EggBox, { eggs, chosen: new Set<number>(), mayChoose: true, mayMove: true, ...more });
const chosenOf = (wrapper: ReturnType<typeof box>): number[][] =>
  (wrapper.emitted('update:chosen') ?? []).map(([set]) => [...(set as Set<number>)]);

describe('the drawing', () => {
  test('says the same in words as in lines', () => {
    const wrapper = box([
      egg({ verdict: 'slug', massG: 41 }),
      egg({ state: state({ stage: 'pipped' }) }),
      egg({ state: state({ stage: 'out', young: 2 }) }),
      egg({ state: state({ worries: ['mould'] }) }),
      egg({ state: state({ stage: 'removed', worries: ['mould'] }) }),
      egg({ massG: null }),
    ]);
    expect(wrapper.findAll('.label').map((label) => label.text())).toEqual([
      'slug',
      'pipped',
      'twins out',
      'mould',
      'removed',
      '',
    ]);
    expect(wrapper.findAll('.egg').map((one) => one.attributes('aria-label'))[1]).toBe(
      'Egg 2: good, 80 g, pipped',
    );
  });

  test('eggs of one stuck group are joined, one to the next', () => {
    const wrapper = box([egg({ stuck: 1 }), egg(), egg({ stuck: 1 }), egg({ stuck: 1 }), egg({ stuck: 2 })]);
    // Three of group 1 make two bonds; an egg alone in its group has none.
    expect(wrapper.findAll('.bond')).toHaveLength(2);
  });

  test('heavier eggs are drawn larger', () => {
    const sizes = box([egg({ massG: 40 }), egg({ massG: 90 })])
      .findAll('.egg > g')
      .map((one) => Number(/scale\((.*)\)/.exec(one.attributes('transform')!)![1]));
    expect(sizes[0]).toBeLessThan(sizes[1]!);
  });
});

describe('by key', () => {
  test('space and enter choose an egg or let it go', async () => {
    const wrapper = box([egg(), egg()], { chosen: new Set([1]) });
    await wrapper.findAll('.egg')[0]!.trigger('keydown', { key: ' ' });
    await wrapper.findAll('.egg')[1]!.trigger('keydown', { key: 'Enter' });
    expect(chosenOf(wrapper)[0]).toEqual([1, 0]);
    expect(wrapper.findAll('.egg')[1]!.attributes('aria-pressed')).toBeDefined();
  });

  test('arrows lay it elsewhere, never out of the box', async () => {
    const wrapper = box([egg({ x: 93, y: 7 })]);
    for (const key of ['ArrowRight', 'ArrowUp', 'ArrowLeft', 'ArrowDown'])
      await wrapper.get('.egg').trigger('keydown', { key });
    expect(wrapper.emitted('move')).toEqual([
      [0, 94, 7],
      [0, 93, 6],
      [0, 91, 7],
      [0, 93, 9],
    ]);
  });

  test('where nothing may be changed there is nothing to press', async () => {
    const wrapper = box([egg()], { mayChoose: false, mayMove: false });
    const one = wrapper.get('.egg');
    expect(one.attributes('role')).toBe('img');
    await one.trigger('keydown', { key: 'ArrowLeft' });
    expect(wrapper.emitted('move')).toBeUndefined();
  });
});

describe('by hand', () => {
  function pointer(wrapper: ReturnType<typeof box>) {
    const one = wrapper.get('.egg');
    (one.element as unknown as { setPointerCapture: () => void }).setPointerCapture = () => undefined;
    wrapper.get('svg').element.getBoundingClientRect = () =>
      ({ left: 0, top: 0, width: 520, height: 250 }) as DOMRect;
    return (type: string, x: number, y: number) =>
      one.trigger(type, { clientX: x, clientY: y, pointerId: 1 });
  }

  test('a touch chooses; a hand that trembles does not move the egg', async () => {
    const wrapper = box([egg()]);
    const touch = pointer(wrapper);
    await touch('pointerdown', 260, 125);
    await touch('pointermove', 263, 127);
    await touch('pointerup', 263, 127);
    expect(chosenOf(wrapper)).toEqual([[0]]);
    expect(wrapper.emitted('move')).toBeUndefined();
  });

  test('dragged, it lies where it was let go, inside the box', async () => {
    const wrapper = box([egg()]);
    const touch = pointer(wrapper);
    await touch('pointerdown', 260, 125);
    await touch('pointermove', 104, 50);
    await touch('pointerup', 104, 50);
    await touch('pointerdown', 260, 125);
    await touch('pointermove', 900, -40);
    await touch('pointerup', 900, -40);
    expect(wrapper.emitted('move')).toEqual([
      [0, 20, 20],
      [0, 94, 6],
    ]);
    expect(chosenOf(wrapper)).toEqual([]);
  });
});
