import type { MoveAdvice } from '@karyotome/core';
import type { TubPlace } from './animal-summary.ts';
import type { HeatZoneView } from './husbandry-responses.ts';
import type { LadderStepInput } from './enclosure-requests.ts';
import type { Sex } from './animal-status.ts';

export interface LadderView {
  id: string;
  name: string;
  steps: LadderStepInput[];
  racks: number;
  version: number;
}

/** A tub in its place, and who lives in it. */
export interface TubView extends TubPlace {
  /** The step of the ladder that its rack stands for, by name. */
  kind: string;
  isFree: boolean;
  /** Numbers of the animals that live in it. */
  animals: string[];
}

/** A rack without what stands in it. */
export interface RackSummary {
  id: string;
  room: string;
  name: string;
  levels: number;
  tubsPerLevel: number;
  ladderId: string;
  stepPosition: number;
  step: LadderStepInput;
  version: number;
  zones: HeatZoneView[];
  /** Animals that live in it, and tubs that nobody lives in. */
  animals: number;
  free: number;
}

/** A rack with its tubs, who lives in them, and what is advised. */
export interface RackView extends RackSummary {
  tubs: {
    id: string;
    level: number;
    slot: number;
    animals: {
      id: string;
      number: string;
      label: string;
      sex: Sex;
      massG: number | null;
      verdict: MoveAdvice['verdict'];
      inShed: boolean;
      /** Its weight against the range of its tub. */
      fit: 'light' | 'fits' | 'heavy' | null;
      concern: boolean;
      lastCleaned: string | null;
      cleanDue: boolean;
    }[];
  }[];
}
