import type { Zone } from '@karyotome/core';

/** One zone of a hatchling that is seen from above, with its head enlarged. */
export interface ZoneShape {
  readonly zone: Zone;
  readonly d: string;
  /** It is a band of this width along the line; else a plate. */
  readonly width?: number;
  /** Where its mark stands. */
  readonly at: readonly [number, number];
}

/** What the drawing lies within. */
export const ZONE_VIEW = '0 0 410 300';

const BODY = 'M222,66 C262,18 362,20 362,84 C362,140 262,128 258,186';
/** From the back of the drawing to its front. */
export const ZONE_SHAPES: readonly ZoneShape[] = [
  { zone: 'tail', d: 'M227,184 C224,244 292,270 384,250 C326,246 290,232 289,186 Z', at: [292, 246] },
  { zone: 'belly edge', d: BODY, width: 62, at: [392, 88] },
  { zone: 'flanks', d: BODY, width: 46, at: [343, 96] },
  { zone: 'back', d: BODY, width: 16, at: [290, 34] },
  {
    zone: 'neck',
    d: 'M59,190 L141,190 L150,200 C138,212 134,230 134,250 L134,292 L66,292 L66,250 C66,230 62,212 50,200 Z',
    at: [100, 246],
  },
  {
    zone: 'lips',
    d: 'M100,14 C122,14 134,30 142,52 C148,72 160,96 168,122 C178,152 172,180 150,200 L141,190 C158,174 163,152 155,126 C148,102 138,80 132,60 C126,40 116,26 100,26 C84,26 74,40 68,60 C62,80 52,102 45,126 C37,152 42,174 59,190 L50,200 C28,180 22,152 32,122 C40,96 52,72 58,52 C66,30 78,14 100,14 Z',
    at: [178, 130],
  },
  {
    zone: 'eye stripe',
    d: 'M68,60 C62,80 52,102 45,126 C37,152 42,174 59,190 L72,190 C58,172 54,152 60,128 C66,106 74,84 80,64 Z M132,60 C138,80 148,102 155,126 C163,152 158,174 141,190 L128,190 C142,172 146,152 140,128 C134,106 126,84 120,64 Z',
    at: [20, 160],
  },
  {
    zone: 'head top',
    d: 'M100,26 C116,26 122,44 120,64 C126,84 134,106 140,128 C146,152 142,172 128,190 L72,190 C58,172 54,152 60,128 C66,106 74,84 80,64 C78,44 84,26 100,26 Z',
    at: [100, 126],
  },
  {
    zone: 'eyes',
    d: 'M53,92 a9,9 0 1,0 18,0 a9,9 0 1,0 -18,0 Z M129,92 a9,9 0 1,0 18,0 a9,9 0 1,0 -18,0 Z',
    at: [26, 88],
  },
  { zone: 'ground colour', d: 'M338,200 a20,20 0 1,0 40,0 a20,20 0 1,0 -40,0 Z', at: [358, 200] },
];
