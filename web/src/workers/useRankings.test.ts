import { PiniaColada } from '@pinia/colada';
import { createPinia } from 'pinia';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { createApp, effectScope, ref } from 'vue';
import { halfOf } from '../../test/bench.ts';
import { api } from '../api/resources.ts';
import { ChannelWorker } from '../../test/worker.ts';
import type { RankingAnswer, RankingRequest } from './ranking.worker.ts';
import { useRankings, type Ranked } from './useRankings.ts';

/** What the worker was asked, and how the test answers it. */
let asked: { request: RankingRequest; answer: (answer: RankingAnswer) => void }[] = [];
let entries: unknown[] = [];
const NO_ANSWER: RankingAnswer = {
  ranking: null,
  advice: { markers: [], compare: [], againOn: null },
};
beforeEach(() => {
  asked = [];
  entries = [];
  ChannelWorker.api = {
    setEntries: (own: unknown) => entries.push(own),
    rank: (request: RankingRequest) => new Promise((answer) => asked.push({ request, answer })),
  };
  vi.stubGlobal('Worker', ChannelWorker);
  vi.spyOn(api, 'catalogue').mockResolvedValue({
    version: '2026.4',
    update: null,
    entries: [],
  });
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
  return { animals, rankings, leave: () => scope.stop() };
}
/** All are asked about once without the collection's own markers, and again when those are there. */
async function started(ranked: number): Promise<void> {
  await vi.waitFor(() => expect(asked).toHaveLength(2 * ranked));
  asked = [];
}
const seen = (): string[] => asked.map(({ request }) => Object.keys(request.observations).join());

test('after a touch only the one that was touched is asked about, and none without odds', async () => {
  const { animals, leave } = setUp([ranked('a'), ranked('b'), { ...ranked('c'), hypotheses: [] }]);
  await started(2);
  animals.value = [ranked('a', { 'lips: pale': 'seen' }), ranked('b')];
  await vi.waitFor(() => expect(seen()).toEqual(['lips: pale']));
  leave();
});

test('an answer to an older question is dropped', async () => {
  const { animals, rankings, leave } = setUp([ranked('a')]);
  await started(1);
  animals.value = [ranked('a', { 'lips: pale': 'not-seen' })];
  await vi.waitFor(() => expect(asked).toHaveLength(1));
  animals.value = [ranked('a', { 'lips: pale': 'seen' })];
  await vi.waitFor(() => expect(asked).toHaveLength(2));
  asked[0]!.answer({ ...NO_ANSWER, failure: 'fault' });
  asked[1]!.answer({ ...NO_ANSWER, failure: 'too-many' });
  await vi.waitFor(() => expect(rankings.get('a')?.failure).toBe('too-many'));
  leave();
});

test('the collection’s own markers go first, and the worker ends with the page', async () => {
  const { leave } = setUp([ranked('a')]);
  await started(1);
  expect(entries[0]).toEqual([]);
  leave();
  expect(ChannelWorker.last.isEnded).toBe(true);
});
