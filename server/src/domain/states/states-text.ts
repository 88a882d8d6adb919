import { isAway } from '@karyotome/core';
import { boardOrder } from '../season/board-place.ts';
import { isHealthCase, isMealDay, isShedding, type ComputedState } from './compute-state.ts';

/** A computed state as the database takes it: one of a list in JSON. */
const toRow = ({ id, changes, sex, day, placeKey, state, tasks }: ComputedState): object => ({
  id,
  changes,
  sex,
  age_days: state.offCurve?.age ?? null,
  off_curve: state.offCurve?.off ?? null,
  plan_id: state.planId,
  mass_g: state.weight?.massG ?? null,
  is_shedding: isShedding(state),
  is_meal_day: isMealDay(state, day),
  in_quarantine: state.health.quarantine !== null,
  is_away: isAway(state.loan),
  is_health_case: isHealthCase(state),
  board: state.board?.group ?? null,
  board_order: state.board ? boardOrder(state.board.group) : null,
  facts: state,
  tasks: tasks.map(({ clutchId: clutch_id, ...row }) => ({ ...row, clutch_id, place_key: placeKey })),
});

/** States as the JSON text that is stored by `saveStates`. Of animals without a row nothing is stored. */
export const statesToText = (states: readonly ComputedState[]): string =>
  JSON.stringify(states.filter(({ changes }) => changes !== null).map(toRow));
