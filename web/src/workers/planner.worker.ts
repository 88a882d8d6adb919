import type { PlannerView } from '@karyotome/contract';
import type { SimulationResult } from '@karyotome/core';
import type { PlannerQuestion, SimulateQuestion } from './planner-questions.ts';
import { Planner } from './planner.ts';

/* Messages in: the collection, questions, cancellations by number. Out: answers, and the progress of what takes long. */

export type ToPlanner =
  | { readonly view: PlannerView }
  | { readonly id: number; readonly question: PlannerQuestion }
  | { readonly cancel: number };
export type FromPlanner =
  { readonly id: number; readonly progress: number } | { readonly id: number; readonly answer: unknown };

/** Runs between two looks at the messages. */
const AT_ONCE = 200;
let planner: Planner | null = null;
const cancelled = new Set<number>();
const post = (message: FromPlanner): void => self.postMessage(message);

self.addEventListener('message', ({ data }: MessageEvent<ToPlanner>) => {
  if ('view' in data) planner = new Planner(data.view);
  else if ('cancel' in data) cancelled.add(data.cancel);
  else void answer(planner!, data.id, data.question);
});

async function answer(from: Planner, id: number, question: PlannerQuestion): Promise<void> {
  switch (question.ask) {
    case 'pair':
      return post({ id, answer: from.pair(question) });
    case 'mates':
      return post({ id, answer: from.mates(question) });
    case 'routes':
      return post({ id, answer: from.routes(question) });
    case 'season':
      return post({ id, answer: from.season(question) });
    case 'simulate': {
      const result = await simulate(from, id, question);
      if (result) post({ id, answer: result });
    }
  }
}

/** Plays a plan piece by piece; between the pieces it says how far it is, and hears whether to stop. */
async function simulate(
  from: Planner,
  id: number,
  question: SimulateQuestion,
): Promise<SimulationResult | null> {
  const simulation = from.simulation(question);
  for (let done = 0; done < question.runs; done += AT_ONCE) {
    if (cancelled.has(id)) return null;
    simulation.play(Math.min(AT_ONCE, question.runs - done));
    post({ id, progress: Math.min(1, (done + AT_ONCE) / question.runs) });
    await new Promise((resolve) => setTimeout(resolve));
  }
  return simulation.result();
}
