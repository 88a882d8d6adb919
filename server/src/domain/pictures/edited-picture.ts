import type { PictureEdit } from '@karyotome/contract';
import type { Sharp } from 'sharp';
import { evenLight } from './even-light.ts';
import { fromRaw, GROUND, raw } from './raw-picture.ts';

/** A picture is turned at this size at most: what is cropped of it is still sharp. */
const WORKING_EDGE = 4000;

/** The picture turned, then cropped, then with its light evened. @param upright - as the camera meant it */
export async function edited(upright: Sharp, { turn, crop, isEvened }: PictureEdit): Promise<Sharp> {
  const whole = await raw(
    upright.resize({ width: WORKING_EDGE, height: WORKING_EDGE, fit: 'inside', withoutEnlargement: true }),
  );
  const turned = turn % 360 === 0 ? whole : await raw(fromRaw(whole).rotate(turn, { background: GROUND }));
  const { width, height } = turned.info;
  const left = Math.min(width - 1, Math.round(crop.left * width));
  const top = Math.min(height - 1, Math.round(crop.top * height));
  const cut = fromRaw(turned).extract({
    left,
    top,
    width: Math.max(1, Math.min(width - left, Math.round(crop.width * width))),
    height: Math.max(1, Math.min(height - top, Math.round(crop.height * height))),
  });
  return isEvened ? evenLight(await raw(cut)) : cut;
}
