import { ROUTES } from '@karyotome/contract';
import { answerOffer, offerToFirst } from '../../domain/waiting/offer-to-first.ts';
import {
  addWish,
  animalWaits,
  changeWish,
  closeWish,
  pairingWaits,
  wishViews,
} from '../../domain/waiting/wishes.service.ts';
import { findClutch } from '../../domain/season/clutches.repository.ts';
import type { Endpoints } from '../../http/endpoint.ts';
import { originOf } from '../../http/origin.ts';
import { Refusal } from '../../refusal.ts';

export function waitingRoutes({ list, write }: Endpoints): void {
  list(ROUTES.wishes, ({ work }) => wishViews(work), { infers: true });
  list(ROUTES.pairingWaits, ({ work }) => pairingWaits(work), { infers: true });
  list(
    ROUTES.animalWaits,
    async ({ work, id }) => {
      await findClutch(work, id);
      return animalWaits(work, id);
    },
    { infers: true },
  );
  write(ROUTES.addWish, ({ work, body }) => addWish(work, body));
  write(ROUTES.changeWish, ({ work, id, body, version }) => changeWish(work, id, body, version));
  write(ROUTES.closeWish, ({ work, id }) => closeWish(work, id));
  write(ROUTES.offerToFirst, async ({ work, body, request }) => {
    const offer = await offerToFirst(work, body, originOf(request));
    if (!offer) throw new Refusal('conflict', 'Nobody who waits is left whom this animal fits.');
    return offer;
  });
  write(ROUTES.answerOffer, ({ work, id, body, request }) =>
    answerOffer(work, id, body.answer, originOf(request)),
  );
}
