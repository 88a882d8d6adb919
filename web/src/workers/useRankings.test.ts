import { PiniaColada } from '@pinia/colada';
import { createPinia } from 'pinia';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { createApp, effectScope, nextTick, ref } from 'vue';
import { halfOf } from '../../test/bench.ts';
import { api } from '../api/resources.ts';
import { useRankings, type Ranked } from './useRankings.ts';

/** Stands in for the browser's worker: keeps what it is told, and answers when the test says so. */
class FakeWorker {
  static last: FakeWorker;
  readonly told: { animalId?: string; turn?: number; entries?: unknown[] }[] = [];
  isEnded = false;
  hear: (event: { data: unknown }) => void = () => undefined;
  constructor() {
    FakeWorker.last = this;
  }
  addEventListener(_type: string, hear: (event: { data: unknown }) => void): void {
    this.hear = hear;
  }
  postMessage(message: object): void {
    this.told.push(message);
  }
  terminate(): void {
    this.isEnded = true;
  }
}
beforeEach(() => {
  vi.stubGlobal('Worker', FakeWorker);
  vi.spyOn(api, 'catalogue').mockResolvedValue({ entries: [] });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const ranked = (id: string, observations: Ranked['observations'] = {}): Ranked => ({
  id,
  hypotheses: halfOf('pastel'),
  observations,
  lastShed: null,
});
function setUp(first: Ranked[]) {
  const animals = ref(first);
  const app = createApp({}).use(createPinia()).use(PiniaColada);
  const scope = effectScope();
  const { rankings } = app.runWithContext(() => scope.run(() => useRankings(() => animals.value))!);
  const asked = (): string[] =>
    FakeWorker.last.told.flatMap(({ animalId, turn }) => (animalId ? [`${animalId} ${turn}`] : []));
  const answer = (animalId: string, turn: number): void =>
    FakeWorker.last.hear({ data: { animalId, turn, ranking: null, advice: null } });
  return { animals, rankings, asked, answer, leave: () => scope.stop() };
}

test('after a touch only the one that was touched is asked about, and none without odds', async () => {
  const { animals, asked } = setUp([ranked('a'), ranked('b'), { ...ranked('c'), hypotheses: [] }]);
  expect(asked()).toEqual(['a 1', 'b 1']);
  animals.value = [ranked('a', { 'lips: pale': 'seen' }), ranked('b')];
  await nextTick();
  expect(asked()).toEqual(['a 1', 'b 1', 'a 2']);
});

test('an answer to an older question is dropped', async () => {
  const { animals, rankings, answer } = setUp([ranked('a')]);
  animals.value = [ranked('a', { 'lips: pale': 'seen' })];
  await nextTick();
  answer('a', 1);
  expect(rankings.has('a')).toBe(false);
  answer('a', 2);
  expect(rankings.get('a')!.turn).toBe(2);
});

test('the collection’s own markers go first, and the worker ends with the page', async () => {
  const { leave } = setUp([ranked('a')]);
  expect(FakeWorker.last.told[0]).toEqual({ entries: [] });
  leave();
  expect(FakeWorker.last.isEnded).toBe(true);
});
