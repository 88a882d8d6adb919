import type { RoomView, SessionView } from '@karyotome/contract';
import { mendings, simulateRoom, type RoomQuestion } from '@karyotome/core';
import { flushPromises } from '@vue/test-utils';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { button, mounted } from '../../../test/mounted.ts';
import { ChannelWorker } from '../../../test/worker.ts';
import { api } from '../../api/resources.ts';
import { useSession } from '../../stores/session.ts';
import ForecastView from './ForecastView.vue';

const WEEKS = 12;
const flat = (massG: number): number[] => new Array<number>(WEEKS).fill(Math.log(massG));
const question: RoomQuestion = {
  kinds: [{ key: 'a', name: 'Hatchling tub', places: 5, maxG: null, next: null }],
  animals: [],
  clutches: [{ hatchInDays: 30, sdDays: 0, eggs: 9, hatchShare: 1, chance: 1 }],
  hatchlingKind: 'a',
  hatchling: { mean: flat(70), sd: new Array<number>(WEEKS).fill(0.1) },
  saleAgeWeeks: 4,
  salePace: 0.1,
  heldBack: 0.2,
  weeks: WEEKS,
  runs: 100,
  seed: 1,
};
const view: RoomView = {
  today: '2026-06-20',
  question,
  assumptions: { saleAgeWeeks: 4, salePace: 0.1, heldBack: 0.2 },
  learned: null,
  version: 3,
  rests: { animals: 0, forSale: 0, clutches: 1 },
};
const asked: RoomQuestion[] = [];
beforeEach(() => {
  localStorage.clear();
  asked.length = 0;
  ChannelWorker.api = {
    forecast: (question: RoomQuestion, onProgress: (share: number) => void) => {
      asked.push(question);
      onProgress(0.5);
      return simulateRoom(question)!;
    },
    mendings,
  };
  ChannelWorker.all = [];
  vi.stubGlobal('Worker', ChannelWorker);
  vi.spyOn(api, 'room').mockResolvedValue(view);
});
afterEach(() => {
  vi.restoreAllMocks();
  document.body.innerHTML = '';
});
async function opened() {
  const wrapper = mounted(ForecastView, {});
  useSession().view = {
    permissions: ['view', 'record', 'breed', 'house', 'sell', 'manage'],
    collection: {},
    account: {},
  } as unknown as SessionView;
  await flushPromises();
  await vi.waitFor(() => expect(wrapper.text()).toContain('Hatchling tub'));
  await vi.waitFor(() => expect(wrapper.text()).toContain('full from about'));
  await vi.waitFor(() => expect(wrapper.findAll('.mend button').length).toBeGreaterThan(0));
  return wrapper;
}

test('says when it is full, and what would help', async () => {
  const wrapper = await opened();
  expect(wrapper.text()).toContain('full from about');
  expect(wrapper.text()).toContain('Buy 4 places of Hatchling tub: it lasts the year');
  expect(ChannelWorker.all.some(({ isEnded }) => isEnded)).toBe(true);
});

test('a mending is tried out on the spot, and left again', async () => {
  const wrapper = await opened();
  await wrapper.findAll('.mend button')[0]!.trigger('click');
  await vi.waitFor(() => expect(asked.at(-1)!.kinds[0]!.places).toBe(9));
  await vi.waitFor(() => expect(wrapper.text()).toContain('lasts the year'));
  expect(wrapper.text()).not.toContain('full from');
  await button(wrapper, 'As it is').trigger('click');
  await vi.waitFor(() => expect(asked.at(-1)!.kinds[0]!.places).toBe(5));
});

test('what is supposed from now on is saved as shares, with its version', async () => {
  const save = vi.spyOn(api, 'changeRoomAssumptions').mockResolvedValue({ version: 4 });
  const wrapper = await opened();
  await wrapper.find('input').setValue('25');
  await flushPromises();
  await vi.waitFor(() => expect(wrapper.text()).toContain('Use this pace'));
  await button(wrapper, 'Use this pace from now on').trigger('click');
  await flushPromises();
  expect(save).toHaveBeenCalledWith({ salePace: 0.25, heldBack: 0.2, saleAgeWeeks: 4 }, 3);
});
