import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import { addPlan, changePlan, removePlan } from '../../domain/husbandry/feeding-plans.ts';
import { changeFeedingRules } from '../../domain/husbandry/feeding-rules.ts';
import { feedingNight, viewFeeding } from '../../domain/husbandry/feeding.service.ts';
import { feedingLessons } from '../../domain/husbandry/herd-lessons.ts';
import { addStock, voidStock } from '../../domain/husbandry/freezer.service.ts';

export function feedingRoutes({ list, read, write }: Endpoints): void {
  read(ROUTES.feeding, ({ work }) => viewFeeding(work));
  list(ROUTES.feedingNight, ({ work }) => feedingNight(work));
  read(ROUTES.feedingLessons, ({ work }) => feedingLessons(work));
  write(ROUTES.changeFeedingRules, ({ work, body, version }) => changeFeedingRules(work, body, version));
  write(ROUTES.addFeedingPlan, ({ work, body }) => addPlan(work, body));
  write(ROUTES.changeFeedingPlan, ({ work, params, body, version }) =>
    changePlan(work, params.key, body, version),
  );
  write(ROUTES.removeFeedingPlan, ({ work, params, version }) => removePlan(work, params.key, version));
  write(ROUTES.addStock, ({ work, body }) => addStock(work, body));
  write(ROUTES.voidStock, ({ work, id, body }) => voidStock(work, id, body.reason));
}
