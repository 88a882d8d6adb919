import type { MiteWatch } from '@karyotome/core';
import type { TubPlace } from './animal-summary.ts';

/** A rack in which mites were seen: who lives there, and who is to be looked through now. */
export interface MiteWatchView extends Omit<MiteWatch, 'toCheck'> {
  /** Of the rack. */
  id: string;
  name: string;
  toCheck: readonly string[];
  animals: {
    id: string;
    number: string;
    place: TubPlace;
    /** When it was last looked at. */
    checkedOn: string | null;
    isDue: boolean;
  }[];
}
