import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { mounted } from '../../../test/mounted.ts';
import { api } from '../../api/resources.ts';
import { farmToday } from '../../format/format.ts';
import HatchDialog from './HatchDialog.vue';

beforeEach(() => localStorage.clear());
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});
const NUMBERS = ['2605-01', '2605-02', '2605-03', '2605-04'];
/** The dialog stands beside the component, at the end of the page. */
function dialog(more: Record<string, unknown> = {}) {
  const wrapper = mounted(HatchDialog, {
    clutch: { id: 'c', name: '2605', version: 7, nextNumbers: NUMBERS },
    young: 3,
    followed: true,
    waiting: 0,
    ...more,
  });
  return { wrapper, text: () => document.body.textContent?.replace(/\s+/g, ' ') ?? '' };
}
const submit = async (): Promise<void> => {
  document.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
  await flushPromises();
};

test('all young are numbered in one act, with the clutch’s version', async () => {
  const hatch = vi.spyOn(api, 'hatch').mockResolvedValue({ ids: [], numbers: NUMBERS.slice(0, 3) });
  const { wrapper, text } = dialog();
  expect(text()).toContain('Their numbers: 2605-01 to 2605-03');
  expect(text()).toContain('in the order in which they left their eggs');
  await submit();
  expect(hatch).toHaveBeenCalledWith('c', { hatchedOn: farmToday(), hatched: 3 }, 7);
  expect(wrapper.emitted('done')).toHaveLength(1);
});

test('eggs that are not out yet are warned of, since numbering closes the clutch', () => {
  expect(dialog({ waiting: 2 }).text()).toContain('2 eggs are not out yet');
  document.body.innerHTML = '';
  expect(dialog({ waiting: 1 }).text()).toContain('1 egg is not out yet');
  document.body.innerHTML = '';
  expect(dialog().text()).not.toContain('not out yet');
});

test('where nobody followed the eggs, only how many matters', () => {
  const { text } = dialog({ followed: false, young: 1, waiting: 6 });
  expect(text()).toContain('Its number: 2605-01');
  expect(text()).not.toContain('not out yet');
});
