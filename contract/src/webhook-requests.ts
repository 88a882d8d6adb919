import Joi from 'joi';
import { noTwo } from './fields.ts';
import { WEBHOOK_EVENTS, type WebhookEvent } from './webhook-events.ts';

export interface WebhookInput {
  /** Where messages are sent: https, or http within one's own network where the server allows it. */
  address: string;
  events: WebhookEvent[];
}

export const webhookInput = Joi.object<WebhookInput, true>({
  address: Joi.string()
    .uri({ scheme: ['https', 'http'] })
    .max(500)
    .required(),
  events: Joi.array<WebhookEvent[]>()
    .items(Joi.string().valid(...WEBHOOK_EVENTS))
    .min(1)
    .custom(noTwo())
    .required(),
});
