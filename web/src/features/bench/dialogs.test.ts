import type { LabelOrder, LabelPreview, SettingUp, SetUpProposal } from '@karyotome/contract';
import { CATALOGUE, type Observations } from '@karyotome/core';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { nextTick, ref } from 'vue';
import { benchView, hatchling } from '../../../test/bench.ts';
import { mounted } from '../../../test/mounted.ts';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import AskDialog from './AskDialog.vue';
import ClutchSays from './ClutchSays.vue';
import CompareDialog from './CompareDialog.vue';
import LabelsDialog from './LabelsDialog.vue';
import SetUpDialog from './SetUpDialog.vue';
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
/** Dialogs stand beside their component, at the end of the page. */
const text = (): string => document.body.textContent?.replace(/\s+/g, ' ') ?? '';
const submit = async (): Promise<void> => {
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
  await flushPromises();
};
const checkbox = (label: string): HTMLInputElement =>
  [...document.querySelectorAll<HTMLInputElement>('input[type=checkbox]')].find((box) =>
    box.closest('.v-selection-control')!.textContent!.includes(label),
  )!;

/** The request's own schema wants ids that could be some. */
const SCHEMA_IDS = ['11111111-1111-4111-8111-111111111111', '22222222-2222-4222-8222-222222222222'] as const;

describe('labels', () => {
  const [first, second] = SCHEMA_IDS;
  const preview = ({ animalIds, size }: LabelOrder): LabelPreview => ({
    size,
    widthMm: 57,
    heightMm: 32,
    labels: animalIds.map((animalId) => ({
      animalId,
      number: animalId,
      texts: [{ text: animalId, x: 1, y: 5, sizeMm: 4, widthMm: 20, isBold: true }],
      qr: null,
    })),
  });
  beforeEach(() => void vi.spyOn(api, 'previewLabels').mockImplementation(async (order) => preview(order)));
  const label = (isOutOfDate: boolean) => ({
    issue: 1,
    kind: 'numbers' as const,
    printedAt: '2026-08-02T10:00:00Z',
    isOutOfDate,
  });

  test('numbers alone while nobody was looked at, and what will be printed is drawn', async () => {
    const print = vi.spyOn(api, 'printLabels').mockResolvedValue({ id: 'sheet' });
    const wrapper = mounted(LabelsDialog, {
      hatchlings: [hatchling('1', { id: first }), hatchling('2', { id: second })],
      title: 'Labels',
    });
    await flushPromises();
    expect(document.querySelectorAll('svg.label')).toHaveLength(2);
    await submit();
    expect(print.mock.lastCall![0]).toEqual({
      animalIds: [first, second],
      kind: 'numbers',
      size: 'roll-57x32',
    });
    expect(window.open).toHaveBeenCalledWith('/api/v1/labels/sheet', '_blank');
    expect(wrapper.emitted('close')).toHaveLength(1);
  });

  test('where some are out of date, those are chosen to begin with', async () => {
    const print = vi.spyOn(api, 'printLabels').mockResolvedValue({ id: 'sheet' });
    mounted(LabelsDialog, {
      hatchlings: [
        hatchling('1', { id: first, identified: true, printedLabel: label(true) }),
        hatchling('2', { id: second, identified: true, printedLabel: label(false) }),
      ],
      title: 'Labels',
    });
    await flushPromises();
    expect(text()).toContain('1, out of date, printed');
    await submit();
    expect(print.mock.lastCall![0]).toMatchObject({ animalIds: [first], kind: 'full' });
  });

  test('with none chosen nothing is sent, and the list says so', async () => {
    const print = vi.spyOn(api, 'printLabels');
    mounted(LabelsDialog, { hatchlings: [hatchling('1')], title: 'Labels' });
    await flushPromises();
    checkbox('1, never printed').click();
    await flushPromises();
    await submit();
    expect(text()).toContain('Choose at least one.');
    expect(print).not.toHaveBeenCalled();
  });
});

describe('setting up', () => {
  const tub = (tubId: string, slot: number) => ({ tubId, room: 'Room', rack: 'Hatch 1', level: 1, slot });
  const proposal = (places: SetUpProposal['places']): SetUpProposal => ({
    places,
    tubs: [tub('t1', 1), tub('t2', 2)],
    firstMealOn: '2026-08-16',
  });
  const place = (number: string, tubId: string | null) => ({ animalId: `id-${number}`, number, tubId });

  test('the proposed places, the substrate and the plan go in one act, then the labels', async () => {
    const [a, b] = SCHEMA_IDS;
    vi.spyOn(api, 'setUpProposal').mockResolvedValue({
      ...proposal([{ animalId: a, number: '1', tubId: b }]),
      tubs: [tub(b, 1)],
    });
    const send = vi.spyOn(api, 'setUp').mockResolvedValue({ ids: ['r1'] });
    const wrapper = mounted(SetUpDialog, { clutchId: 'c', clutchName: '2601' });
    await flushPromises();
    await submit();
    const [, order] = send.mock.lastCall as [string, SettingUp];
    expect(order).toMatchObject({
      substrate: 'Plain paper',
      places: [{ animalId: a, tubId: b }],
      plan: { protocol: 'frozen-first', firstMealOn: '2026-08-16' },
    });
    expect(wrapper.emitted()).toMatchObject({ close: [[]], labels: [[]] });
  });

  test('says when there are not tubs enough, and when nobody is left', async () => {
    const asked = vi
      .spyOn(api, 'setUpProposal')
      .mockResolvedValue(proposal(['1', '2', '3'].map((number, i) => place(number, `t${i + 1}`))));
    mounted(SetUpDialog, { clutchId: 'c', clutchName: '2601' });
    await flushPromises();
    expect(text()).toContain('3 hatchlings, 2 free tubs');
    document.body.innerHTML = '';
    asked.mockResolvedValue(proposal([]));
    mounted(SetUpDialog, { clutchId: 'd', clutchName: '2602' });
    await flushPromises();
    expect(text()).toContain('Every one of this clutch has its tub');
  });

  test('a place that somebody took meanwhile is named at its field', async () => {
    const [a, b] = SCHEMA_IDS;
    vi.spyOn(api, 'setUpProposal').mockResolvedValue({
      ...proposal([{ animalId: a, number: '1', tubId: b }]),
      tubs: [tub(b, 1)],
    });
    vi.spyOn(api, 'setUp').mockRejectedValue(
      new ProblemError({
        type: 't',
        title: 'Refused',
        status: 422,
        errors: [{ field: 'places.0.tubId', code: 'rule', message: 'is taken by now' }],
      }),
    );
    const wrapper = mounted(SetUpDialog, { clutchId: 'c', clutchName: '2601' });
    await flushPromises();
    await submit();
    expect(text()).toContain('is taken by now');
    expect(wrapper.emitted('close')).toBeUndefined();
  });
});

describe('asking outside', () => {
  test('only those with a picture can be asked about; open addresses can be withdrawn', async () => {
    const revoke = vi.spyOn(api, 'revokeOpinionLink').mockResolvedValue(undefined);
    const bench = benchView([hatchling('1', { pictureIds: ['p'] }), hatchling('2')], {
      links: [
        {
          id: 'l',
          path: '/opinion/x',
          numbers: ['1'],
          createdAt: '2026-08-20T10:00:00Z',
          expiresOn: '2026-09-19',
        },
      ],
    });
    mounted(AskDialog, { bench });
    await flushPromises();
    expect(document.querySelectorAll('input[type=checkbox]')).toHaveLength(1);
    expect(text()).toContain('/opinion/x');
    [...document.querySelectorAll('button')].find((one) => one.textContent!.includes('Withdraw'))!.click();
    await flushPromises();
    expect(revoke).toHaveBeenCalledWith('l');
    document.body.innerHTML = '';
    mounted(AskDialog, { bench: benchView([hatchling('2')]) });
    await flushPromises();
    expect(text()).toContain('Add pictures first');
  });
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
      mayRecord: true,
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
    expect(text()).toContain('lips pale');
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
    const wrapper = mounted(ClutchSays, {
      bench: {
        ...bench,
        dam: { ...bench.dam, news: [news] },
        sires: [bench.sires[0]!, { ...bench.sires[0]!, id: 't', number: 'M-2' }],
      },
      mayRecord: true,
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
