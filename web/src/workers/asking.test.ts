import type { PlannerView } from '@karyotome/contract';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { effectScope, nextTick, ref, shallowRef } from 'vue';
import { ChannelWorker } from '../../test/worker.ts';
import type {
  MatesQuestion,
  PlannerQuestion,
  RoutesQuestion,
  SimulateQuestion,
} from './planner-questions.ts';
import { useAnswer } from './useAnswer.ts';
import { usePlannerWorker, type PlannerWorker } from './usePlanner.ts';

/** What the workers were told, and how the test answers. */
let collections: PlannerView[] = [];
let asked: {
  question: PlannerQuestion;
  answer: (answer: unknown) => void;
  progress?: (share: number) => void;
}[] = [];
let cancelled: number[] = [];

beforeEach(() => {
  collections = [];
  asked = [];
  cancelled = [];
  ChannelWorker.all = [];
  ChannelWorker.api = {
    setCollection: (view: PlannerView) => void collections.push(view),
    search: (question: PlannerQuestion) => new Promise((answer) => asked.push({ question, answer })),
    simulate: (_id: number, question: PlannerQuestion, progress: (share: number) => void) =>
      new Promise((answer) => asked.push({ question, answer, progress })),
    cancel: (id: number) => void cancelled.push(id),
  };
  vi.stubGlobal('Worker', ChannelWorker);
});
afterEach(() => vi.unstubAllGlobals());

const view = (season: number) => ({ season, animals: [] }) as unknown as PlannerView;
function setUp() {
  const scope = effectScope();
  const data = shallowRef<PlannerView | undefined>(view(2027));
  const planner = scope.run(() => usePlannerWorker(data))!;
  return { planner, data, scope };
}
const mates = (target: string): MatesQuestion => ({ ask: 'mates', target });
const routes: RoutesQuestion = { ask: 'routes', target: 'clown', bought: null };
const simulate = { ask: 'simulate', target: 'clown' } as SimulateQuestion;

describe('the planner’s worker', () => {
  test('gets the collection first, and again whenever it changed', async () => {
    const { data, scope } = setUp();
    data.value = view(2028);
    await vi.waitFor(() => expect(collections.map(({ season }) => season)).toEqual([2027, 2028]));
    scope.stop();
  });

  test('answers find their questions, in whatever order they come', async () => {
    const { planner, scope } = setUp();
    const first = planner.ask(mates('a'));
    const second = planner.ask(mates('b'));
    await vi.waitFor(() => expect(asked).toHaveLength(2));
    asked[1]!.answer(['for b']);
    asked[0]!.answer(['for a']);
    expect([await first.answer, await second.answer]).toEqual([['for a'], ['for b']]);
    scope.stop();
  });

  test('a plan that is played tells how far it is; stopped, it is told so and answers nothing', async () => {
    const { planner, scope } = setUp();
    const progress: number[] = [];
    const running = planner.ask(simulate, (share) => progress.push(share));
    await vi.waitFor(() => expect(asked).toHaveLength(1));
    asked[0]!.progress!(0.5);
    await vi.waitFor(() => expect(progress).toEqual([0.5]));
    running.cancel();
    expect(await running.answer).toBeNull();
    await vi.waitFor(() => expect(cancelled).toHaveLength(1));
    asked[0]!.progress!(0.6);
    asked[0]!.answer(null);
    void planner.ask(mates('a'));
    await vi.waitFor(() => expect(asked).toHaveLength(2));
    expect(progress).toEqual([0.5]);
    scope.stop();
  });

  test('a search is stopped by a new worker, which takes over what else was asked', async () => {
    const { planner, scope } = setUp();
    const other = planner.ask(mates('a'));
    const search = planner.ask(routes);
    const old = ChannelWorker.last;
    await vi.waitFor(() => expect(asked).toHaveLength(2));
    search.cancel();
    expect(await search.answer).toBeNull();
    expect(old.isEnded).toBe(true);
    expect(ChannelWorker.last).not.toBe(old);
    await vi.waitFor(() => expect(asked).toHaveLength(3));
    expect(collections).toHaveLength(2);
    expect(asked[2]!.question).toEqual(mates('a'));
    asked[2]!.answer(['still']);
    expect(await other.answer).toEqual(['still']);
    scope.stop();
  });

  test('what fails in the worker fails for who asked', async () => {
    const { planner, scope } = setUp();
    const failing = planner.ask(mates('a'));
    await vi.waitFor(() => expect(asked).toHaveLength(1));
    asked[0]!.answer(Promise.reject(new Error('A bad target')));
    await expect(failing.answer).rejects.toThrow('A bad target');
    scope.stop();
  });

  test('left, it ends, and nobody waits for ever', async () => {
    const { planner, scope } = setUp();
    const running = planner.ask(mates('a'));
    scope.stop();
    expect(ChannelWorker.last.isEnded).toBe(true);
    expect(await running.answer).toBeNull();
  });
});

describe('an answer while typing', () => {
  function typing() {
    const settle: ((answer: unknown) => void)[] = [];
    const planner = {
      ask: () => ({ answer: new Promise((resolve) => settle.push(resolve)), cancel: () => undefined }),
    } as unknown as PlannerWorker;
    const question = ref<MatesQuestion | null>(mates('c'));
    const { answer, isWorking } = effectScope().run(() => useAnswer(planner, question))!;
    return { settle, question, answer, isWorking };
  }

  test('a newer question overtakes the older, whose answer comes too late', async () => {
    const { settle, question, answer, isWorking } = typing();
    question.value = mates('cl');
    await nextTick();
    settle[1]!(['for cl']);
    await nextTick();
    settle[0]!(['for c']);
    await nextTick();
    await nextTick();
    expect(answer.value).toEqual(['for cl']);
    expect(isWorking.value).toBe(false);
  });

  test('without a question there is no answer, and an equal one is not asked again', async () => {
    const { settle, question, answer } = typing();
    question.value = mates('c');
    await nextTick();
    expect(settle).toHaveLength(1);
    question.value = null;
    await nextTick();
    settle[0]!(['late']);
    await nextTick();
    expect(answer.value).toBeNull();
  });
});
