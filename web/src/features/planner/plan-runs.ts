import type { Route, SimulationResult } from '@karyotome/core';
import { reactive } from 'vue';
import type { Bought } from '../../workers/planner-questions.ts';
import type { PlannerWorker } from '../../workers/usePlanner.ts';

export const YEARS = 10;
export const RUNS = 10_000;

export interface PlanRun {
  readonly slot: 'A' | 'B';
  route: Route | null;
  progress: number;
  result: SimulationResult | null;
  cancel: (() => void) | null;
}
const emptyRun = (slot: PlanRun['slot']): PlanRun => ({
  slot,
  route: null,
  progress: 0,
  result: null,
  cancel: null,
});

/** Two plans side by side, each played through many times. */
export function usePlanRuns(planner: PlannerWorker) {
  const runs = reactive<Record<PlanRun['slot'], PlanRun>>({ A: emptyRun('A'), B: emptyRun('B') });

  function clear(slot: PlanRun['slot']): void {
    runs[slot].cancel?.();
    Object.assign(runs[slot], emptyRun(slot));
  }

  async function play(
    slot: PlanRun['slot'],
    route: Route,
    terms: { target: string; bought: Bought | null; holdBack: number },
  ): Promise<void> {
    clear(slot);
    const asked = planner.ask(
      { ask: 'simulate', route, ...terms, years: YEARS, runs: RUNS, seed: slot === 'A' ? 1 : 2 },
      (share) => {
        if (runs[slot].route === kept) runs[slot].progress = share;
      },
    );
    Object.assign(runs[slot], { route, cancel: asked.cancel });
    const kept = runs[slot].route;
    const result = await asked.answer;
    if (runs[slot].route !== kept) return;
    if (result === null) return clear(slot);
    Object.assign(runs[slot], { result, cancel: null });
  }
  return { runs, play, clear };
}
