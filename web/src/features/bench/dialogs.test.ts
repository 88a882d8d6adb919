import type { LabelOrder, LabelPreview, SettingUp, SetUpProposal } from '@karyotome/contract';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { benchView, hatchling } from '../../../test/bench.ts';
import { mounted, pageText } from '../../../test/mounted.ts';
import { ProblemError } from '../../api/client.ts';
import { api } from '../../api/resources.ts';
import AskDialog from './AskDialog.vue';
import LabelsDialog from './LabelsDialog.vue';
import SetUpDialog from './SetUpDialog.vue';

beforeEach(() => {
  localStorage.clear();
  vi.stubGlobal('open', vi.fn());
  vi.spyOn(api, 'contradictions').mockResolvedValue([]);
});
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});
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
    expect(pageText()).toContain('1, out of date, printed');
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
    expect(pageText()).toContain('Choose at least one.');
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
    expect(pageText()).toContain('3 hatchlings, 2 free tubs');
    document.body.innerHTML = '';
    asked.mockResolvedValue(proposal([]));
    mounted(SetUpDialog, { clutchId: 'd', clutchName: '2602' });
    await flushPromises();
    expect(pageText()).toContain('Every one of this clutch has its tub');
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
    expect(pageText()).toContain('is taken by now');
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
          numbers: ['1'],
          createdAt: '2026-08-20T10:00:00Z',
          expiresOn: '2026-09-19',
        },
      ],
    });
    mounted(AskDialog, { bench });
    await flushPromises();
    expect(document.querySelectorAll('input[type=checkbox]')).toHaveLength(1);
    // The address itself was told when it was made.
    expect(pageText()).not.toContain('/opinion/');
    [...document.querySelectorAll('button')].find((one) => one.textContent!.includes('Withdraw'))!.click();
    await flushPromises();
    expect(revoke).toHaveBeenCalledWith('l');
    document.body.innerHTML = '';
    mounted(AskDialog, { bench: benchView([hatchling('2')]) });
    await flushPromises();
    expect(pageText()).toContain('Add pictures first');
  });
});
