import { createHash } from 'node:crypto';
import readExif from 'exif-reader';
import sharp, { type Metadata, type OutputInfo } from 'sharp';
import { Turns } from '../../db/turns.ts';
import { type FileStore, type StoredFile } from '../../files/file-store.ts';
import { invalidField, Refusal } from '../../refusal.ts';
import type { PictureEdit } from '@karyotome/contract';
import { edited } from './edited-picture.ts';
import { outlineOf, widthOf } from '../../print/typeface.ts';

// Only these three are ever decoded, whatever a file says it is; the fourth draws our own stamp.
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: ['VipsForeignLoadJpeg', 'VipsForeignLoadPng', 'VipsForeignLoadWebp', 'VipsForeignLoadSvg'],
});
// Decoding takes this many processors at most, and this much memory: the others go on answering.
sharp.concurrency(1);
sharp.cache(false);
const decoding = new Turns(2);

/** A picture that unpacks to more than this is refused before it is unpacked. JPEG is decoded at a smaller scale at once. */
const MAX_PIXELS = { jpeg: 64_000_000, png: 26_000_000, webp: 26_000_000 };
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
export const pictureFile = (name: string): StoredFile => ({ folder: 'pictures', name });

/** What a file is by its first bytes (JPEG: ISO/IEC 10918-1; PNG: RFC 2083; WebP: RFC 9649); null where none of these. */
export function formatOf(bytes: Buffer): Format | null {
  if (bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff]))) return 'jpeg';
  if (bytes.subarray(0, 8).equals(Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'))) return 'png';
  const isWebp = bytes.toString('latin1', 0, 4) === 'RIFF' && bytes.toString('latin1', 8, 12) === 'WEBP';
  return isWebp ? 'webp' : null;
}

/**
 * The copies that are shown: upright, at most 2000 and 360 pixels long, and encoded anew, which leaves place, camera and
 * every other word behind.
 *
 * @param edit - how they are turned and cropped
 */
export function makeCopies(bytes: Buffer, edit: PictureEdit | null = null): Promise<PictureCopies> {
  const format = formatOf(bytes);
  if (format === null)
    throw invalidField(
      'picture',
      'must be a JPEG, PNG or WebP picture; one of another kind, such as HEIC, is saved as JPEG first',
      'format',
    );
  return decoding.take(() => copiesOf(bytes, format, edit));
}

async function copiesOf(bytes: Buffer, format: Format, edit: PictureEdit | null): Promise<PictureCopies> {
  const metadata = await readHeader(bytes, format);
  try {
    const upright = sharp(bytes, { limitInputPixels: MAX_PIXELS[format], failOn: 'error' }).rotate();
    const display = await (edit ? await edited(upright, edit) : upright)
      .resize({ width: MAX_EDGE, height: MAX_EDGE, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 82, effort: EFFORT })
      .toBuffer({ resolveWithObject: true });
    const thumb = await sharp(display.data)
      .resize({ width: THUMB_EDGE, height: THUMB_EDGE, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 76, effort: EFFORT })
      .toBuffer();
    return { format, takenOn: dayTaken(metadata), display, thumb };
  } catch {
    throw invalidField('picture', 'is broken: it ends early, or its data cannot be read', 'unreadable');
  }
}

/** The header alone: how large it would unpack. */
async function readHeader(bytes: Buffer, format: Format): Promise<Metadata> {
  let metadata: Metadata;
  try {
    metadata = await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw invalidField('picture', 'cannot be read: it is broken, or no picture', 'unreadable');
  }
  const { width = 0, height = 0, pages = 1 } = metadata;
  const millions = (width * height * pages) / 1e6;
  if (millions * 1e6 > MAX_PIXELS[format]) {
    const most = MAX_PIXELS[format] / 1e6;
    throw new Refusal('invalid', `The picture unpacks to ${Math.round(millions)} megapixels.`, [
      {
        field: 'picture',
        code: 'too-many-pixels',
        message: `unpacks to ${Math.round(millions)} megapixels: at most ${most} as ${format.toUpperCase()}`,
      },
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
 * The copy that travels: with the animal's number and the collection's name on it. Made once for each wording and width.
 *
 * @returns the file's name within the pictures' folder
 */
export async function stampedCopy(
  files: FileStore,
  file: string,
  words: string,
  width: number | null = null,
): Promise<string> {
  const mark = createHash('sha256').update(words).digest('hex').slice(0, 10);
  const name = `${stampedPrefix(file)}${mark}${width === null ? '' : `-${width}`}.webp`;
  if (!(await files.has(pictureFile(name))))
    await decoding.take(async () =>
      files.write(pictureFile(name), await stamp(await files.read(pictureFile(file)), words, width)),
    );
  return name;
}

const STAMPED = 'stamped/';
/** How the names of a picture's stamped copies begin. */
const stampedPrefix = (file: string): string => `${STAMPED}${file.replace(/\.webp$/, '')}-`;

/** The copies of a picture that were stamped, for whatever words. */
export async function stampedCopiesOf(files: FileStore, file: string): Promise<StoredFile[]> {
  return files.list('pictures', stampedPrefix(file));
}

async function stamp(picture: Buffer, words: string, wide: number | null): Promise<Buffer> {
  const smaller = wide === null ? picture : await narrowed(picture, wide);
  const source = sharp(smaller);
  const { width, height } = await source.metadata();
  return source
    .composite([{ input: Buffer.from(stampOver(width, height, words)) }])
    .webp({ quality: 82, effort: EFFORT })
    .toBuffer();
}

const narrowed = (picture: Buffer, width: number): Promise<Buffer> =>
  sharp(picture).resize({ width, withoutEnlargement: true }).webp({ quality: 90, effort: EFFORT }).toBuffer();

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
