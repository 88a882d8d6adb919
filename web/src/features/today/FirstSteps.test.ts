import type { AnimalSummary, MemberView, RackSummary } from '@karyotome/contract';
import { flushPromises } from '@vue/test-utils';
import { afterEach, expect, test, vi } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import { api } from '../../api/resources.ts';
import FirstSteps from './FirstSteps.vue';

afterEach(() => vi.restoreAllMocks());

/** A collection with so many racks, animals in them, and members. */
async function opened(racks: number, animals: number, members: number, leftOut: string[] = []) {
  const rack = { animals } as RackSummary;
  vi.spyOn(api, 'racks').mockResolvedValue(Array.from({ length: racks }, () => rack));
  vi.spyOn(api, 'members').mockResolvedValue(Array.from({ length: members }, () => ({}) as MemberView));
  vi.spyOn(api, 'animals').mockResolvedValue({
    items: animals > 0 ? [{ weighedOn: '2026-06-01' } as AnimalSummary] : [],
    next: null,
    total: animals,
  });
  const wrapper = mounted(FirstSteps, { leftOut });
  await flushPromises();
  return wrapper;
}

test('what is done is marked, and what is not leads to its place', async () => {
  const wrapper = await opened(2, 0, 1);
  const steps = wrapper.findAll('li');
  expect(steps.map((step) => step.classes().includes('done'))).toEqual([true, false, false, false, false]);
  expect(steps[1]!.findAll('a').map((link) => link.attributes('href'))).toEqual([
    '/animals?add=1',
    '/animals?add=1&cards=1',
    '/animals/import',
  ]);
});

test('a step is left out, and shown no more', async () => {
  const wrapper = await opened(2, 5, 1);
  await button(wrapper, 'Leave out: Invite who helps').trigger('click');
  expect(wrapper.emitted('update:leftOut')).toEqual([[['people']]]);
});

test.each([
  [2, 5, 2, []],
  [0, 0, 1, ['racks', 'animals', 'tubs', 'weights', 'people']],
])('once every step is done or left out, it is over', async (racks, animals, members, leftOut) => {
  const wrapper = await opened(racks, animals, members, leftOut);
  expect(wrapper.text()).toBe('');
  expect(wrapper.emitted('done')).toHaveLength(1);
});
