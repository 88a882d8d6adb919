import sharp, { type Sharp } from 'sharp';

/** What is seen where a picture has nothing. */
export const GROUND = '#ffffff';

/** Unpacked: three channels, eight bits each. */
export type RawPicture = Awaited<ReturnType<typeof raw>>;
export const raw = (picture: Sharp) =>
  picture.flatten({ background: GROUND }).toColourspace('srgb').raw().toBuffer({ resolveWithObject: true });

export const fromRaw = ({ data, info }: RawPicture): Sharp =>
  sharp(data, { raw: { width: info.width, height: info.height, channels: info.channels } });
