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

/** How the brightness of the margin changes from the middle to a side, as a share of its mean. */
function slopeOf(small: Buffer): { acrossX: number; acrossY: number } {
  // The margin is the same on all sides, so that the two directions and the mean are fitted each by itself.
  const [sum, count] = [
    [0, 0, 0],
    [0, 0, 0],
  ] as [number[], number[]];
  const edge = Math.round(SMALL * MARGIN);
  for (let row = 0; row < SMALL; row++) {
    for (let column = 0; column < SMALL; column++) {
      const isMargin = Math.min(row, column, SMALL - 1 - row, SMALL - 1 - column) < edge;
      if (!isMargin) continue;
      const value = small[row * SMALL + column]!;
      [1, place(column), place(row)].forEach((weight, i) => {
        sum[i]! += weight * value;
        count[i]! += weight * weight;
      });
    }
  }
  const [mean, acrossX, acrossY] = sum.map((one, i) => one / count[i]!);
  return mean! > 0 ? { acrossX: acrossX! / mean!, acrossY: acrossY! / mean! } : { acrossX: 0, acrossY: 0 };
}
