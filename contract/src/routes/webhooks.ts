import type { NewWebhook, WebhookView } from '../webhook-events.ts';
import type { webhookInput } from '../webhook-requests.ts';
import { acts, lists, writes } from './route.ts';

export const webhooksRoutes = {
  webhooks: lists<WebhookView>()(
    '/webhooks',
    'Programs that are told of changes',
    { key: 'id' },
    { permission: 'manage' },
  ),
  addWebhook: writes<NewWebhook, typeof webhookInput>()(
    'post',
    '/webhooks',
    'Have a program told of changes',
    {
      permission: 'manage',
    },
  ),
  testWebhook: acts<void>()('post', '/webhooks/:id/test', 'Send a message that tells of nothing', {
    permission: 'manage',
    status: 204,
  }),
  removeWebhook: acts<void>()('delete', '/webhooks/:id', 'Tell a program no more', { permission: 'manage' }),
};
