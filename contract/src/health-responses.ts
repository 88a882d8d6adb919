import type { HealthState, MiteWatch } from '@karyotome/core';
import type { AnimalSummary, TubPlace } from './animal-summary.ts';

/** An animal that is under treatment, in quarantine, shows signs, or is to be seen by a veterinarian. */
export interface HealthCaseView {
  /** Of the animal. */
  id: string;
  animal: AnimalSummary;
  health: HealthState;
}

/** A rack in which mites were seen: who lives there, and who is to be looked through now. */
export interface MiteWatchView extends MiteWatch {
  /** Of the rack. */
  id: string;
  name: string;
  animals: {
    id: string;
    number: string;
    place: TubPlace;
    /** When it was last looked at. */
    checkedOn: string | null;
    isDue: boolean;
  }[];
}
