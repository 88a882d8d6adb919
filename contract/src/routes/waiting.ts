import {
  waitingOffer,
  wishAnswer,
  wishInput,
  type AnimalWaitView,
  type PairingWaitView,
  type WishView,
} from '../waiting.ts';
import { acts, changes, lists, writes } from './route.ts';
import type { Changed, Created } from './answers.ts';

const OF_RECORDERS = { permission: 'record' } as const;

export const waitingRoutes = {
  wishes: lists<WishView>()('/wishes', 'Who waits for what, in order', { key: 'id' }, OF_RECORDERS),
  addWish: writes<Created>()('post', '/wishes', 'Put somebody on the waiting list', wishInput),
  changeWish: changes<Changed>()('put', '/wishes/:id', 'Change what somebody waits for', wishInput),
  closeWish: acts<void>()('delete', '/wishes/:id', 'Take somebody off the waiting list'),
  pairingWaits: lists<PairingWaitView>()(
    '/waiting/pairings',
    'What open pairings and lying clutches may give to those who wait',
    { key: 'id' },
    OF_RECORDERS,
  ),
  animalWaits: lists<AnimalWaitView>()(
    '/clutches/:id/waiting',
    'Who waits for the young of a clutch',
    { key: 'animalId' },
    OF_RECORDERS,
  ),
  offerToFirst: writes<Created>()(
    'post',
    '/waiting/offers',
    'Offer an animal to the first whom it fits',
    waitingOffer,
  ),
  answerOffer: writes<void>()('post', '/wish-offers/:id/answer', 'Record an answer to an offer', wishAnswer, {
    status: 204,
  }),
};
