import { ROUTES } from '@karyotome/contract';
import type { Endpoints } from '../../http/endpoint.ts';
import {
  boardFemales,
  boardInOrder,
  boardMales,
  relatedMates,
  viewBoard,
} from '../../domain/season/board.service.ts';
import { changeSires, introduce, takeBack } from '../../domain/season/introductions.ts';
import { changeRules } from '../../domain/season/season-rules.ts';
import { addSeasonEvent, correctSeasonEvent } from '../../domain/season/season-events.ts';

export function seasonRoutes({ list, listBy, read, write }: Endpoints): void {
  read(ROUTES.season, ({ work }) => viewBoard(work));
  listBy(
    ROUTES.seasonFemales,
    ({ work }) => boardInOrder(work, 'female'),
    ({ work }, page) => boardFemales(work, page),
  );
  listBy(
    ROUTES.seasonMales,
    ({ work }) => boardInOrder(work, 'male'),
    ({ work }, page) => boardMales(work, page),
  );
  list(ROUTES.relatedMates, ({ work, id }) => relatedMates(work, id));
  write(ROUTES.changeSeasonRules, ({ work, body, version }) => changeRules(work, body, version));
  write(ROUTES.introduce, ({ work, body }) => introduce(work, body));
  write(ROUTES.addSeasonEvent, ({ work, id, body }) => addSeasonEvent(work, id, body));
  write(ROUTES.changeSires, ({ work, id, body, version }) => changeSires(work, id, body, version));
  write(ROUTES.voidSeasonEvent, ({ work, id, body }) => takeBack(work, id, body.reason));
  write(ROUTES.correctSeasonEvent, ({ work, id, body }) => correctSeasonEvent(work, id, body));
}
