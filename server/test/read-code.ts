import jsQR from 'jsqr';
import sharp, { type Region } from 'sharp';

/** A code read by jsqr 1.4, which shares nothing with what drew it. */
export async function readCode(picture: Buffer, box?: Region): Promise<string | undefined> {
  const image = box ? sharp(picture).extract(box) : sharp(picture);
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data;
}
