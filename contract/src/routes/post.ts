import type { lettersInput, LetterView, PostView, ReceivedLetterView } from '../post.ts';
import { acts, lists, reads, writes } from './route.ts';

export const postRoutes = {
  post: reads<PostView>()('/post', 'How letters are sent', { permission: 'sell' }),
  letters: lists<LetterView>()(
    '/letters',
    'Letters to people, the latest first',
    { key: 'id', filters: ['state'] },
    { permission: 'sell' },
  ),
  sendLetters: writes<void, typeof lettersInput>()(
    'post',
    '/letters/send',
    'Send letters that were drafted or failed',
    { permission: 'sell', status: 204 },
  ),
  discardLetter: acts<void>()('delete', '/letters/:id', 'Discard a letter that was not sent', {
    permission: 'sell',
  }),
  receivedLetter: reads<ReceivedLetterView>()(
    '/letters/:id/received',
    'A letter as it arrived at the simulated post office',
    { permission: 'sell' },
  ),
};
