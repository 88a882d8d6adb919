import { createHash } from 'node:crypto';
import { access, mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import readExif from 'exif-reader';
import sharp, { type Metadata, type OutputInfo } from 'sharp';
import { invalidField, Refusal } from '../../http/problems.ts';
import { outlineOf, widthOf } from '../../print/typeface.ts';

/** An image that unpacks to more than this is refused before it is unpacked. */
const MAX_PIXELS = 60_000_000;
const MAX_EDGE = 2000;
const THUMB_EDGE = 360;
/** Of 0 to 6: more makes a file a few percent smaller and takes twice as long. */
const EFFORT = 1;
export const FORMATS = { jpeg: 'jpg', png: 'png', webp: 'webp' } as const;
type Format = keyof typeof FORMATS;

export interface PictureCopies {
  readonly format: Format;
  readonly takenOn: string | null;
  readonly display: { readonly data: Buffer; readonly info: OutputInfo };
  readonly thumb: Buffer;
}

/** Where a stored picture lies. */
export function picturePath(dataDir: string, file: string): string {
  return join(dataDir, 'pictures', file);
}

/**
 * The copies that are shown: upright, at most 2000 and 360 pixels long, and encoded anew, which leaves place, camera and
 * every other word behind.
 */
export async function makeCopies(bytes: Buffer): Promise<PictureCopies> {
  const metadata = await readHeader(bytes);
  try {
    const upright = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error' }).rotate();
    const display = await upright
      .resize({ width: MAX_EDGE, height: MAX_EDGE, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 82, effort: EFFORT })
      .toBuffer({ resolveWithObject: true });
    const thumb = await sharp(display.data)
      .resize({ width: THUMB_EDGE, height: THUMB_EDGE, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 76, effort: EFFORT })
      .toBuffer();
    return { format: metadata.format as Format, takenOn: dayTaken(metadata), display, thumb };
  } catch {
    throw invalidField('picture', 'is broken: it ends early, or its data cannot be read', 'unreadable');
  }
}

/** The header alone: what it is, and how large it would unpack. */
async function readHeader(bytes: Buffer): Promise<Metadata> {
  let metadata: Metadata;
  try {
    metadata = await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw invalidField('picture', 'cannot be read: it is broken, or no picture', 'unreadable');
  }
  const { format, width = 0, height = 0 } = metadata;
  if (!format || !(format in FORMATS))
    throw invalidField('picture', 'must be a JPEG, PNG or WebP picture', 'format');
  if (width * height > MAX_PIXELS) {
    const millions = Math.round((width * height) / 1e6);
    throw new Refusal('invalid', `The picture unpacks to ${millions} megapixels.`, [
      { field: 'picture', code: 'too-many-pixels', message: `unpacks to ${millions} megapixels: at most 60` },
    ]);
  }
  return metadata;
}

/** The day the camera wrote, where it did and it can be true. */
function dayTaken({ exif }: Metadata): string | null {
  if (!exif) return null;
  try {
    const taken = readExif(exif).Photo?.DateTimeOriginal;
    const day =
      taken instanceof Date && !Number.isNaN(taken.getTime()) ? taken.toISOString().slice(0, 10) : null;
    return day !== null && day >= '1990-01-01' ? day : null;
  } catch {
    // A camera's own notes are no reason to refuse its picture.
    return null;
  }
}

/**
 * The copy that travels: with the animal's number and the collection's name on it. Made once for each wording.
 *
 * @returns the file's name within the pictures' folder
 */
export async function stampedCopy(dataDir: string, file: string, words: string): Promise<string> {
  const mark = createHash('sha256').update(words).digest('hex').slice(0, 10);
  const name = join('stamped', `${file.replace(/\.webp$/, '')}-${mark}.webp`);
  const path = picturePath(dataDir, name);
  try {
    await access(path);
    return name;
  } catch {
    // Not made yet.
  }
  const source = sharp(picturePath(dataDir, file));
  const { width, height } = await source.metadata();
  const stamped = await source
    .composite([{ input: Buffer.from(stampOver(width, height, words)) }])
    .webp({ quality: 82, effort: EFFORT })
    .toBuffer();
  await mkdir(join(dataDir, 'pictures', 'stamped'), { recursive: true });
  await writeFile(path, stamped);
  return name;
}

/** The words over the lower left corner, dark behind and light before, so that they stand on any ground. */
function stampOver(width: number, height: number, words: string): string {
  const wanted = Math.max(14, Math.min(width, height) * 0.038);
  const size = Math.min(wanted, (width * 0.9) / widthOf(words, 1, 'bold'));
  const [x, y] = [size * 0.8, height - size * 0.8];
  const path = outlineOf(words, size, 'bold');
  const back = `x="${x - size * 0.4}" y="${y - size * 1.02}" width="${widthOf(words, size, 'bold') + size * 0.8}" height="${size * 1.45}" rx="${size * 0.3}"`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">
    <rect ${back} fill="#15120d" fill-opacity="0.62"/>
    <path d="${path}" transform="translate(${x} ${y})" fill="#fff7e6"/></svg>`;
}
