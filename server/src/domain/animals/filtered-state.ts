import type { FilteredAnimal } from '@karyotome/core';
import type { StoredState } from '../states/compute-state.ts';

/** What a filter reads of an animal's state. */
export type StateFacts = Pick<
  FilteredAnimal,
  'ateOn' | 'refusedInARow' | 'isInShed' | 'isGravid' | 'isInQuarantine' | 'isTreated' | 'showsSigns'
>;

export const stateFactsOf = ({
  appetite,
  shed,
  flags,
  health,
}: Pick<StoredState, 'appetite' | 'shed' | 'flags' | 'health'>): StateFacts => ({
  ateOn: appetite.lastTakenOn,
  refusedInARow: appetite.refusedInARow,
  isInShed: shed !== null,
  isGravid: flags.some(({ code }) => code === 'gravid'),
  isInQuarantine: health.quarantine !== null,
  isTreated: health.courses.length > 0,
  showsSigns: health.openSigns !== null,
});
