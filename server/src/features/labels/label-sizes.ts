import type { LabelSize } from '@karyotome/contract';

/** A label's size, and where it repeats on its sheet: millimetres. */
export interface LabelStock {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Absent for rolls: every label is a page. */
  readonly sheet?: {
    readonly widthMm: number;
    readonly heightMm: number;
    readonly columns: number;
    readonly rows: number;
    readonly leftMm: number;
    readonly topMm: number;
    readonly stepXMm: number;
    readonly stepYMm: number;
  };
}

const A4 = { widthMm: 210, heightMm: 297 };
const LETTER = { widthMm: 215.9, heightMm: 279.4 };

/** Sizes that are sold everywhere, by their measures. Common practice, no source. */
export const LABEL_STOCK: Readonly<Record<LabelSize, LabelStock>> = {
  'roll-50x25': { widthMm: 50, heightMm: 25 },
  'roll-57x32': { widthMm: 57, heightMm: 32 },
  'roll-62x29': { widthMm: 62, heightMm: 29 },
  'roll-76x51': { widthMm: 76, heightMm: 51 },
  'a4-3x7': {
    widthMm: 63.5,
    heightMm: 38.1,
    sheet: { ...A4, columns: 3, rows: 7, leftMm: 7.2, topMm: 15.1, stepXMm: 66, stepYMm: 38.1 },
  },
  'a4-3x8': {
    widthMm: 70,
    heightMm: 37,
    sheet: { ...A4, columns: 3, rows: 8, leftMm: 0, topMm: 0.5, stepXMm: 70, stepYMm: 37 },
  },
  'letter-3x10': {
    widthMm: 66.7,
    heightMm: 25.4,
    sheet: { ...LETTER, columns: 3, rows: 10, leftMm: 4.8, topMm: 12.7, stepXMm: 69.8, stepYMm: 25.4 },
  },
  'letter-2x5': {
    widthMm: 101.6,
    heightMm: 50.8,
    sheet: { ...LETTER, columns: 2, rows: 5, leftMm: 4, topMm: 12.7, stepXMm: 106.4, stepYMm: 50.8 },
  },
};
