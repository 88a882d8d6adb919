import type { DoneClutchView } from '@karyotome/contract';
import { flushPromises } from '@vue/test-utils';
import { afterEach, expect, test, vi } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import { api } from '../../api/resources.ts';
import HatchRates from './HatchRates.vue';

const clutch = (more: Partial<DoneClutchView>): DoneClutchView => ({
  clutchId: 'c',
  name: '2601',
  season: '2026',
  dam: 'F-01',
  sire: 'M-01',
  celsius: 31.4,
  eggs: 10,
  slugs: 0,
  hatched: 10,
  ...more,
});
afterEach(() => vi.restoreAllMocks());
async function rates(clutches: DoneClutchView[]) {
  vi.spyOn(api, 'hatchRates').mockResolvedValue(clutches);
  const wrapper = mounted(HatchRates, {});
  await flushPromises();
  return wrapper;
}
const rows = (wrapper: Awaited<ReturnType<typeof rates>>): string[] =>
  wrapper.findAll('tbody tr').map((row) => row.text().replace(/\s+/g, ' '));

test('every share has its interval: ten of ten is not yet always', async () => {
  const wrapper = await rates([clutch({}), clutch({ clutchId: 'd', season: '2025', slugs: 5, hatched: 5 })]);
  // Wilson's interval for 10 of 10 is 72% to 100%, for 5 of 10 it is 24% to 76% (any table of the score method).
  expect(rows(wrapper)[1]).toContain('10 of 10, 100% (72 to 100%)');
  expect(rows(wrapper)[0]).toContain('5 of 10, 50% (24 to 76%)');
  const band = wrapper.findAll('.band')[0]!.attributes('style')!;
  expect(band).toMatch(/left: 23\.\d+%; width: 52\.\d+%/);
});

test('the same clutches by female, male and temperature', async () => {
  const wrapper = await rates([
    clutch({}),
    clutch({ dam: 'F-02', sire: 'M-01 or M-02', celsius: 30.6 }),
    clutch({ dam: 'F-02', celsius: null }),
  ]);
  const groups = (): string[] => wrapper.findAll('tbody th').map((one) => one.text());
  await button(wrapper, 'Female').trigger('click');
  expect(groups()).toEqual(['F-01', 'F-02']);
  await button(wrapper, 'Male').trigger('click');
  expect(groups()).toEqual(['M-01', 'M-01 or M-02']);
  await button(wrapper, 'Temperature').trigger('click');
  expect(groups()).toEqual(['30.5°C to 31.0°C', '31.0°C to 31.5°C', 'not recorded']);
});

test('without a clutch that is done there is nothing to show', async () => {
  expect((await rates([])).find('table').exists()).toBe(false);
});
