import { CATALOGUE, type Observations } from '@karyotome/core';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { nextTick, ref } from 'vue';
import { benchView, hatchling } from '../../../test/bench.ts';
import { mounted, pageText } from '../../../test/mounted.ts';
import { api } from '../../api/resources.ts';
import ClutchEvidence from './ClutchEvidence.vue';
import CompareDialog from './CompareDialog.vue';
import SortTable from './SortTable.vue';
import { genesInPlay, pullsOf, markersInPlay } from './bench-words.ts';
import { BOX, type Group, type useSorting } from './useSorting.ts';

beforeEach(() => {
  localStorage.clear();
  vi.stubGlobal('open', vi.fn());
  vi.spyOn(api, 'contradictions').mockResolvedValue([]);
});
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});

describe('the table', () => {
  const young = ['1', '2', '3'].map((number) => hatchling(number));
  function table(groups: Group[]) {
    const calls: unknown[][] = [];
    const note =
      (name: string) =>
      (...args: unknown[]) =>
        void calls.push([name, ...args]);
    const held = ref(groups);
    const sorting = {
      groups: held,
      inBox: ref(young.filter(({ id }) => !groups.some(({ animalIds }) => animalIds.includes(id)))),
      membersOf: (group: Group) => young.filter(({ id }) => group.animalIds.includes(id)),
      groupOf: (id: string) => held.value.findIndex(({ animalIds }) => animalIds.includes(id)),
      put: note('put'),
      arrange: note('arrange'),
      add: note('add'),
      rename: note('rename'),
      remove: note('remove'),
    } as unknown as ReturnType<typeof useSorting>;
    const wrapper = mounted(SortTable, {
      sorting,
      rankings: new Map(),
      pulls: pullsOf(young, ({ id }): Observations => (id === 'id-2' ? { 'lips: pale': 'seen' } : {})),
      marked: new Set(),
      mayBreed: true,
    });
    const key = (number: string, name: string) =>
      wrapper.find(`[data-number="${number}"]`).trigger('keydown', { key: name });
    return { wrapper, calls, key };
  }

  test('keys put a hatchling into the next group, a new one, and back into the box', async () => {
    const { calls, key } = table([{ name: 'Bright', animalIds: ['id-3'] }]);
    await key('1', ']');
    await key('3', ']');
    await key('3', '[');
    await key('1', '[');
    expect(calls).toEqual([
      ['put', 'id-1', 0],
      ['add', 'Group 2', ['id-3']],
      ['put', 'id-3', BOX],
    ]);
  });

  test('M marks for comparing, Enter is the tile’s own', async () => {
    const { wrapper, key } = table([]);
    await key('2', 'm');
    await wrapper.find('[data-number="2"]').trigger('click');
    expect(wrapper.emitted('mark')).toEqual([['id-2']]);
    expect(wrapper.emitted('open')).toEqual([['id-2']]);
  });

  test('a group is named and dissolved', async () => {
    const { wrapper, calls } = table([{ name: 'Bright', animalIds: ['id-3'] }]);
    const name = wrapper.find('input.rename');
    (name.element as HTMLInputElement).value = 'Brightest';
    await name.trigger('change');
    await wrapper.find('[aria-label="Dissolve the group Bright"]').trigger('click');
    expect(calls).toEqual([
      ['rename', 0, 'Brightest'],
      ['remove', 0],
    ]);
  });
});

describe('comparing', () => {
  test('a gene’s markers are drawn beside the hatchling, and pictures are turned by keys', async () => {
    const one = hatchling('1', { pictureIds: ['p1', 'p2'] });
    mounted(CompareDialog, {
      bench: benchView([one]),
      rankings: new Map(),
      markers: markersInPlay(CATALOGUE, genesInPlay([one])),
      catalogue: CATALOGUE,
      begin: ['id-1', 'gene pastel'],
    });
    await flushPromises();
    expect(pageText()).toContain('lips pale');
    expect(document.querySelector('svg.drawing')).not.toBeNull();
    const shown = (): string => document.querySelector<HTMLImageElement>('.frame img')!.src;
    expect(shown()).toContain('/pictures/p1');
    document
      .querySelector('.frame')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
    await nextTick();
    expect(shown()).toContain('/pictures/p2');
  });
});

describe('the clutch as a whole', () => {
  test('says how it fits, what it says of a parent, who sired whom, and what is left out', async () => {
    const bench = benchView([hatchling('1', { sires: [{ id: 's', number: 'M-1', p: 0.9 }] })], {
      fit: { p: 0.4, looked: 1, genes: [{ label: 'Pastel', expected: 0.5, seen: 1, p: 1 }] },
      leftOut: ['Clown'],
    });
    const news = {
      locus: 'pastel',
      label: 'Super Pastel',
      allele: 'pastel',
      copies: 2 as const,
      pBefore: 0.33,
      p: 0.98,
      showing: 6,
      looked: 6,
    };
    const wrapper = mounted(ClutchEvidence, {
      bench: {
        ...bench,
        dam: { ...bench.dam, news: [news] },
        sires: [bench.sires[0]!, { ...bench.sires[0]!, id: 't', number: 'M-2' }],
      },
      mayBreed: true,
    });
    await flushPromises();
    const said = wrapper.text().replace(/\s+/g, ' ');
    expect(said).toContain('Left out of the odds, since records contradict one another there: Clown');
    expect(said).toContain('Super Pastel: 6 of 6 show it');
    expect(said).toContain('Who sired whom');
    expect(said).toMatch(/190%0%/);
    expect(said).toContain('Luck, not news');
  });
});
