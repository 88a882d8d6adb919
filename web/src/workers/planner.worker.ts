import type { PlannerView } from '@karyotome/contract';
import type { SimulationResult } from '@karyotome/core';
import { expose } from 'comlink';
import type { AnswerTo, PlannerQuestion, SimulateQuestion } from './planner-questions.ts';
import { Planner } from './planner.ts';

/** Runs between two looks at the messages. */
const AT_ONCE = 200;
let planner: Planner | null = null;
const cancelled = new Set<number>();

export type SearchQuestion = Exclude<PlannerQuestion, SimulateQuestion>;

const api = {
  /** The collection that is planned for. Comes before any question. */
  setCollection(view: PlannerView): void {
    planner = new Planner(view);
  },

  search(question: SearchQuestion): AnswerTo<SearchQuestion> {
    switch (question.ask) {
      case 'pair':
        return planner!.pair(question);
      case 'mates':
        return planner!.mates(question);
      case 'routes':
        return planner!.routes(question);
      case 'route-odds':
        return planner!.routeOdds(question);
      case 'gains':
        return planner!.gains(question);
      case 'season':
        return planner!.season(question);
    }
  },

  /**
   * Plays a plan piece by piece; between the pieces it says how far it is, and learns whether to stop.
   *
   * @param id - names it, so that it can be cancelled
   * @param onProgress - is called with the share done, 0 to 1
   * @returns null where it was cancelled
   */
  async simulate(
    id: number,
    question: SimulateQuestion,
    onProgress: (share: number) => void,
  ): Promise<SimulationResult | null> {
    const simulation = planner!.simulation(question);
    for (let done = 0; done < question.runs; done += AT_ONCE) {
      if (cancelled.delete(id)) return null;
      simulation.play(Math.min(AT_ONCE, question.runs - done));
      onProgress(Math.min(1, (done + AT_ONCE) / question.runs));
      await new Promise((resolve) => setTimeout(resolve));
    }
    return simulation.result();
  },

  cancel(id: number): void {
    cancelled.add(id);
  },
};
export type PlannerApi = typeof api;
expose(api);
