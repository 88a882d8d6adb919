import type { Route, SimulationResult } from '@karyotome/core';
import { expect, test, vi } from 'vitest';
import type { PlannerWorker } from '../../workers/usePlanner.ts';
import { RUNS, usePlanRuns } from './plan-runs.ts';

const route = (roughYears: number): Route => ({ roughYears, steps: [] });
const result = (medianYear: number) => ({ medianYear }) as SimulationResult;
const TERMS = { target: 'clown', bought: null, holdBack: 2 };

/** A planner whose plans end when the test says so. */
function setUp() {
  const asked: {
    question: { runs: number; seed: number };
    settle: (value: SimulationResult | null) => void;
    onProgress: (share: number) => void;
    cancel: ReturnType<typeof vi.fn>;
  }[] = [];
  const planner = {
    ask: (question: never, onProgress: (share: number) => void) => {
      let settle: (value: SimulationResult | null) => void = () => undefined;
      const answer = new Promise<SimulationResult | null>((resolve) => (settle = resolve));
      const cancel = vi.fn(() => settle(null));
      asked.push({ question, settle, onProgress, cancel });
      return { answer, cancel };
    },
  } as unknown as PlannerWorker;
  return { asked, ...usePlanRuns(planner) };
}

test('two plans are played side by side, each with its own dice and progress', async () => {
  const { asked, runs, play } = setUp();
  const a = play('A', route(5), TERMS);
  const b = play('B', route(7), TERMS);
  expect(asked.map(({ question }) => question.runs)).toEqual([RUNS, RUNS]);
  expect(asked[0]!.question.seed).not.toBe(asked[1]!.question.seed);
  asked[0]!.onProgress(0.4);
  expect([runs.A.progress, runs.B.progress]).toEqual([0.4, 0]);
  asked[1]!.settle(result(6));
  await b;
  expect(runs.B.result).toEqual(result(6));
  expect(runs.A.result).toBeNull();
  asked[0]!.settle(result(4));
  await a;
  expect(runs.A).toMatchObject({ result: result(4), cancel: null });
});

test('another route in the same place stops the one that is played', async () => {
  const { asked, runs, play } = setUp();
  const first = play('A', route(5), TERMS);
  const second = play('A', route(9), TERMS);
  expect(asked[0]!.cancel).toHaveBeenCalledOnce();
  asked[0]!.onProgress(0.9);
  expect(runs.A.progress).toBe(0);
  asked[1]!.settle(result(8));
  await Promise.all([first, second]);
  expect(runs.A.route).toEqual(route(9));
  expect(runs.A.result).toEqual(result(8));
});

test('stopped, the place is empty again', async () => {
  const { asked, runs, play, clear } = setUp();
  const played = play('A', route(5), TERMS);
  clear('A');
  await played;
  expect(asked[0]!.cancel).toHaveBeenCalledOnce();
  expect(runs.A).toEqual({ slot: 'A', route: null, progress: 0, result: null, cancel: null });
});
