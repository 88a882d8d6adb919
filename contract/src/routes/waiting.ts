import type {
  waitingOffer,
  wishAnswer,
  wishInput,
  AnimalWaitView,
  PairingWaitView,
  WishView,
} from '../waiting.ts';
import { acts, changes, lists, writes } from './route.ts';
import type { Changed, Created } from './answers.ts';

const OF_SELLERS = { permission: 'sell' } as const;

export const waitingRoutes = {
  wishes: lists<WishView>()('/wishes', 'Who waits for what, in order', { key: 'id' }, OF_SELLERS),
  addWish: writes<Created, typeof wishInput>()('post', '/wishes', 'Put somebody on the waiting list', {
    permission: 'sell',
  }),
  changeWish: changes<Changed, typeof wishInput>()('put', '/wishes/:id', 'Change what somebody waits for', {
    permission: 'sell',
  }),
  closeWish: acts<void>()('delete', '/wishes/:id', 'Take somebody off the waiting list', {
    permission: 'sell',
  }),
  pairingWaits: lists<PairingWaitView>()(
    '/waiting/pairings',
    'What open pairings and lying clutches may give to those who wait',
    { key: 'id' },
    OF_SELLERS,
  ),
  animalWaits: lists<AnimalWaitView>()(
    '/clutches/:id/waiting',
    'Who waits for the young of a clutch',
    { key: 'animalId' },
    OF_SELLERS,
  ),
  offerToFirst: writes<Created, typeof waitingOffer>()(
    'post',
    '/waiting/offers',
    'Offer an animal to the first whom it fits',
    { permission: 'sell' },
  ),
  answerOffer: writes<void, typeof wishAnswer>()(
    'post',
    '/wish-offers/:id/answer',
    'Record an answer to an offer',
    { permission: 'sell', status: 204 },
  ),
};
