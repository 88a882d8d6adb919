import { ROUTES } from '@karyotome/contract';
import { inBackground } from '../../background.ts';
import type { Config } from '../../config.ts';
import type { Database } from '../../db/work.ts';
import { deliverWebhooks } from '../../domain/webhooks/deliver.ts';
import { webhookViews } from '../../domain/webhooks/webhooks.queries.ts';
import {
  addWebhook,
  removeWebhook,
  testWebhook,
  webhookSecret,
} from '../../domain/webhooks/webhooks.service.ts';
import type { Endpoints } from '../../http/endpoint.ts';

/** Programs that are told of changes. */
export function webhookRoutes(
  { list, write }: Endpoints,
  database: Database,
  { signingSecret, isWebhookPrivateAllowed: isPrivateAllowed }: Config,
): void {
  list(ROUTES.webhooks, ({ work }) => webhookViews(work));
  write(
    ROUTES.addWebhook,
    // The secret is added to the answer, and never stored with it.
    async ({ work, body }) => ({ ...(await addWebhook(work, body, isPrivateAllowed)), secret: '' }),
    {
      complete: async (_asked, _actor, answer) => ({
        ...answer,
        secret: webhookSecret(answer.id, signingSecret),
      }),
    },
  );
  write(ROUTES.testWebhook, ({ work, id }) => testWebhook(work, id), {
    // Whoever tries it out does not wait for its turn.
    complete: () => {
      inBackground(() => deliverWebhooks(database, { signingSecret, isPrivateAllowed }), database.onFault);
      return Promise.resolve();
    },
  });
  write(ROUTES.removeWebhook, ({ work, id }) => removeWebhook(work, id));
}
