import sharp, { type Sharp } from 'sharp';
import { fromRaw, type RawPicture } from './raw-picture.ts';

/** The light is judged on a copy of so many pixels a side. */
const SMALL = 64;
/** The ground is what lies this near to the edge, as a share of the side. */
const MARGIN = 0.12;
/** No part is changed by more than this: what is darker is no shade of light. */
const MOST_CHANGE = 0.5;

/**
 * Takes light that comes from one side out of a picture: the brightness of its margin, where the ground is, is fitted by a
 * plane (least squares), and the picture divided by it. The mean brightness stays.
 */
export async function evenLight(picture: RawPicture): Promise<Sharp> {
  const small = await fromRaw(picture)
    .resize({ width: SMALL, height: SMALL, fit: 'fill' })
    .greyscale()
    .raw()
    .toBuffer();
  const { acrossX, acrossY } = slopeOf(small);
  // The plane relative to its mean: 1 in the middle.
  const light = (x: number, y: number): number =>
    Math.min(1 + MOST_CHANGE, Math.max(1 - MOST_CHANGE, 1 + acrossX * x + acrossY * y));
  const corners = [light(-1, -1), light(-1, 1), light(1, -1), light(1, 1)];
  const darkest = Math.min(...corners);
  const gains = Buffer.alloc(SMALL * SMALL);
  for (let row = 0; row < SMALL; row++)
    for (let column = 0; column < SMALL; column++)
      gains[row * SMALL + column] = Math.round((255 * darkest) / light(place(column), place(row)));
  const { width, height } = picture.info;
  const map = await sharp(gains, { raw: { width: SMALL, height: SMALL, channels: 1 } })
    .resize({ width, height, fit: 'fill', kernel: 'cubic' })
    .toColourspace('srgb')
    .png()
    .toBuffer();
  const darkened = await fromRaw(picture)
    .composite([{ input: map, blend: 'multiply' }])
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return fromRaw(darkened).linear(1 / darkest, 0);
}

/** -1 to 1 from one side to the other. */
const place = (index: number): number => (2 * index) / (SMALL - 1) - 1;

/** In the margin, whatever is darker than this share of its median is the animal, and no ground. */
const GROUND_FROM = 0.7;

interface Spot {
  readonly x: number;
  readonly y: number;
  readonly value: number;
}

/** How the brightness of the ground changes from the middle to a side, as a share of that in the middle. */
function slopeOf(small: Buffer): { acrossX: number; acrossY: number } {
  const margin = marginOf(small);
  const median = margin.map(({ value }) => value).toSorted((a, b) => a - b)[margin.length >> 1]!;
  const ground = margin.filter(({ value }) => value >= GROUND_FROM * median);
  const plane = planeThrough(ground);
  return plane && plane[0] > 0
    ? { acrossX: plane[1] / plane[0], acrossY: plane[2] / plane[0] }
    : { acrossX: 0, acrossY: 0 };
}

function marginOf(small: Buffer): Spot[] {
  const edge = Math.round(SMALL * MARGIN);
  const spots: Spot[] = [];
  for (let row = 0; row < SMALL; row++)
    for (let column = 0; column < SMALL; column++)
      if (Math.min(row, column, SMALL - 1 - row, SMALL - 1 - column) < edge)
        spots.push({ x: place(column), y: place(row), value: small[row * SMALL + column]! });
  return spots;
}

type Three = readonly [number, number, number];

/** Least squares: value = a + b x + c y, by the normal equations and Cramer's rule. @returns null where they have no one answer */
function planeThrough(spots: readonly Spot[]): Three | null {
  const sum = (of: (spot: Spot) => number): number => spots.reduce((total, spot) => total + of(spot), 0);
  const [sx, sy] = [sum(({ x }) => x), sum(({ y }) => y)];
  const columns: readonly Three[] = [
    [spots.length, sx, sy],
    [sx, sum(({ x }) => x * x), sum(({ x, y }) => x * y)],
    [sy, sum(({ x, y }) => x * y), sum(({ y }) => y * y)],
  ];
  const right: Three = [
    sum(({ value }) => value),
    sum(({ x, value }) => x * value),
    sum(({ y, value }) => y * value),
  ];
  const whole = determinant(columns);
  if (Math.abs(whole) < 1e-6) return null;
  const [a, b, c] = columns.map(
    (_, i) => determinant(columns.map((column, k) => (k === i ? right : column))) / whole,
  );
  return [a!, b!, c!];
}

const determinant = ([a, b, c]: readonly Three[]): number =>
  a![0] * (b![1] * c![2] - b![2] * c![1]) -
  b![0] * (a![1] * c![2] - a![2] * c![1]) +
  c![0] * (a![1] * b![2] - a![2] * b![1]);
