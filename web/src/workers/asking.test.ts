import type { PlannerView } from '@karyotome/contract';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { effectScope, nextTick, ref, shallowRef } from 'vue';
import type { MatesQuestion, RoutesQuestion, SimulateQuestion } from './planner-questions.ts';
import { useAnswer } from './useAnswer.ts';
import { usePlannerWorker, type PlannerWorker } from './usePlanner.ts';

/** Stands in for the browser's worker: keeps what it is told, and answers when the test says so. */
class FakeWorker {
  static all: FakeWorker[] = [];
  readonly told: Record<string, unknown>[] = [];
  isEnded = false;
  private hear: (event: { data: unknown }) => void = () => undefined;
  constructor() {
    FakeWorker.all.push(this);
  }
  addEventListener(_type: string, hear: (event: { data: unknown }) => void): void {
    this.hear = hear;
  }
  postMessage(message: Record<string, unknown>): void {
    this.told.push(message);
  }
  terminate(): void {
    this.isEnded = true;
  }
  says(data: unknown): void {
    if (!this.isEnded) this.hear({ data });
  }
}
const worker = (): FakeWorker => FakeWorker.all.at(-1)!;
const questions = (): unknown[] =>
  worker().told.flatMap((message) => ('question' in message ? [message['id']] : []));

beforeEach(() => {
  FakeWorker.all = [];
  vi.stubGlobal('Worker', FakeWorker);
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
    const { data } = setUp();
    data.value = view(2028);
    await nextTick();
    expect(worker().told.map((message) => (message['view'] as PlannerView).season)).toEqual([2027, 2028]);
  });

  test('answers find their questions, in whatever order they come', async () => {
    const { planner } = setUp();
    const first = planner.ask(mates('a'));
    const second = planner.ask(mates('b'));
    const [one, two] = questions();
    worker().says({ id: two, answer: ['for b'] });
    worker().says({ id: one, answer: ['for a'] });
    expect([await first.answer, await second.answer]).toEqual([['for a'], ['for b']]);
  });

  test('a plan that is played tells how far it is; stopped, it is told so and answers nothing', async () => {
    const { planner } = setUp();
    const progress: number[] = [];
    const asked = planner.ask(simulate, (share) => progress.push(share));
    const [id] = questions();
    worker().says({ id, progress: 0.5 });
    asked.cancel();
    expect(await asked.answer).toBeNull();
    expect(worker().told.at(-1)).toEqual({ cancel: id });
    worker().says({ id, progress: 0.6 });
    expect(progress).toEqual([0.5]);
  });

  test('a search is stopped by a new worker, which takes over what else was asked', async () => {
    const { planner } = setUp();
    const other = planner.ask(mates('a'));
    const search = planner.ask(routes);
    const old = worker();
    search.cancel();
    expect(await search.answer).toBeNull();
    expect(old.isEnded).toBe(true);
    expect(worker()).not.toBe(old);
    expect(worker().told[0]).toHaveProperty('view');
    const [id] = questions();
    worker().says({ id, answer: ['still'] });
    expect(await other.answer).toEqual(['still']);
  });

  test('left, it ends, and nobody waits for ever', async () => {
    const { planner, scope } = setUp();
    const asked = planner.ask(mates('a'));
    scope.stop();
    expect(worker().isEnded).toBe(true);
    expect(await asked.answer).toBeNull();
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
