/*
 * What a keeper can see, zone by zone, and how sure the trade is of each gene. Common practice of the trade, no source.
 */

export const ZONES = [
  'head top',
  'eye stripe',
  'eyes',
  'lips',
  'neck',
  'back',
  'flanks',
  'belly edge',
  'tail',
  'ground colour',
] as const;
export type Zone = (typeof ZONES)[number];

export interface TraitMarker {
  readonly zone: Zone;
  readonly text: string;
}

/** Markers, one a line: "back: dark stripe". */
export const markers = (lines: string): TraitMarker[] =>
  lines
    .trim()
    .split('\n')
    .map((line) => {
      const [zone, text] = line.trim().split(': ');
      return { zone: zone as Zone, text: text! };
    });
