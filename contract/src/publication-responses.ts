import type { ClaimKind, PreyState, Sureness } from '@karyotome/core';
import type { AnimalSummary, PictureView } from './animal-summary.ts';
import type { ClaimRule } from './genetics-responses.ts';
import type { RecordBodies } from './records.ts';
import type { CollectionSettings } from './session-requests.ts';
import type { Sex } from './animal-requests.ts';

/** What a buyer sees, and the JSON download: no private notes, no places, no other people's names. */
export interface PublicAnimal {
  format: 'karyotome-public-animal/1';
  collection: string;
  /** In which the collection tells its measures; the figures here are grams all the same. */
  units: Pick<CollectionSettings, 'massUnit' | 'temperatureUnit'>;
  number: string;
  name: string | null;
  label: string;
  sex: Sex;
  sexing: { method: RecordBodies['sex']['method']; sure: Sureness } | null;
  hatchedOn: string | null;
  text: string | null;
  asOf: string;
  publishedAt: string;
  weights: { on: string; massG: number }[];
  feedings: { on: string; species: string; size: string; state: PreyState; taken: boolean }[];
  sheds: { on: string; complete: boolean | null }[];
  lineage: PublicKin[];
  claims: {
    label: string;
    kind: ClaimKind;
    p: number;
    certain: boolean;
    rule: ClaimRule;
    /** By whom is left out: people's names are not published. */
    support: { animal: string; on: string; label: string; sure: Sureness }[] | null;
  }[];
  cautions: string[];
  pictures: PictureView[];
}

export interface PublicKin {
  role: 'dam' | 'sire';
  number: string;
  label: string;
  p: number;
  parents: PublicKin[];
}

export interface ShowcaseLine {
  animal: AnimalSummary;
  slug: string;
  publishedAt: string;
  claims: string[];
}
