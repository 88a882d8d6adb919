import type { MoveAdvice } from '@karyotome/core';
import type { HeatZoneView } from './husbandry-responses.ts';
import type { LadderStepInput } from './enclosure-requests.ts';
import type { Sex } from './animal-requests.ts';

export interface LadderView {
  id: string;
  name: string;
  steps: LadderStepInput[];
  racks: number;
  version: number;
}

export interface RackView {
  id: string;
  room: string;
  name: string;
  levels: number;
  tubsPerLevel: number;
  ladderId: string;
  stepPosition: number;
  step: LadderStepInput;
  version: number;
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
  zones: HeatZoneView[];
}
