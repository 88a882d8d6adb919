import Papa from 'papaparse';
import { nowMs } from '../../clock.ts';
import type { Work } from '../../db/work.ts';
import { recordViews } from '../animals/animals.repository.ts';
import { findAnimal } from '../animals/animals.service.ts';
import { readPicture } from '../pictures/read-picture.ts';
import { picturesOf, type PictureOf } from '../pictures/pictures.queries.ts';
import { shownPictures } from '../pictures/shown-pictures.ts';
import { offerOf } from '../sales/offers.service.ts';
import { statedName } from '../statements/stated-pictures.ts';
import { statementsOf, subjectOf, type IssuedRow } from '../statements/statements.queries.ts';
import { successionsOf } from '../statements/signing-keys.ts';
import { type FileStore } from '../../files/file-store.ts';
import { Refusal } from '../../refusal.ts';
import { inThread } from '../../threads/pool.ts';
import type { PackageInput } from './pack-statement.ts';
import { publicRecords, standing } from './public-records.ts';

/** A dated record that goes along with an animal: what was weighed, fed and shed, without notes and names. */
interface HandedRecord {
  readonly on: string;
  readonly kind: 'weight' | 'feeding' | 'shed';
  readonly massG?: number;
  readonly species?: string;
  readonly size?: string;
  readonly state?: string;
  readonly taken?: boolean;
  readonly complete?: boolean | null;
}

/** An animal's number as the name of a file. */
export const fileNameOf = (number: string): string => number.replace(/[^\w-]+/g, '_');

const COLUMNS = ['on', 'kind', 'massG', 'species', 'size', 'state', 'taken', 'complete'];

/** What goes into a package, with its pictures still to be read. */
export interface PackageContent extends Omit<PackageInput, 'pictures'> {
  /** By path within `data/`. */
  readonly pictures: readonly (readonly [string, PictureOf])[];
}

/** Packs it. Outside of any transaction: reading pictures and packing them takes its time. @returns the bytes of a zip */
export async function packPackage(
  files: FileStore,
  { pictures, ...rest }: PackageContent,
): Promise<Uint8Array> {
  const read = pictures.map(async ([path, picture]) => [path, await readPicture(files, picture)] as const);
  return inThread('pack-statement', { ...rest, pictures: await Promise.all(read) });
}

/** What goes into the package of an animal: its statements, the newest first among them, records and pictures. */
export async function statementPackage(work: Work, animalId: string): Promise<PackageContent> {
  const [newest, ...earlier] = await statementsOf(work, { animalId });
  if (!newest) throw new Refusal('conflict', 'Nothing is signed of this animal yet: publish it first.');
  const { number } = await findAnimal(work, animalId);
  const records = handedRecords(publicRecords(standing(await recordViews(work, [animalId]))));
  const name = fileNameOf(number);
  return {
    name,
    texts: [
      ['lineage.json', newest.document],
      ...earlier.map((row) => [`earlier/statement-${row.statement}.json`, row.document] as const),
      ...(await successionsOf(work)).map((text, i) => [`earlier/key-${i + 2}.json`, text] as const),
      ['records.json', JSON.stringify({ animal: `urn:uuid:${animalId}`, records })],
      ['records.csv', `${Papa.unparse(records, { columns: COLUMNS, newline: '\n' })}\n`],
    ],
    pictures: (await handedPictures(work, animalId, newest)).map((picture) => [statedName(picture), picture]),
    atMs: nowMs(),
  };
}

/** The pictures that the statement names, and those that buyers see since. */
async function handedPictures(work: Work, animalId: string, newest: IssuedRow): Promise<PictureOf[]> {
  const all = await picturesOf(work, { animalIds: [animalId] });
  const named = new Set((subjectOf(newest).pictures ?? []).map(({ file }) => file));
  const { pictureIds } = await offerOf(work, animalId);
  const shown = new Set(shownPictures(all, pictureIds).map(statedName));
  const handed = all.filter((picture) => named.has(statedName(picture)) || shown.has(statedName(picture)));
  const found = new Set(handed.map(statedName));
  if (![...named].every((file) => found.has(file)))
    throw new Refusal(
      'conflict',
      `Statement ${newest.statement} names a picture that was removed. Publish the animal and sign the next statement first.`,
    );
  return handed;
}

function handedRecords({ weights, feedings, sheds }: ReturnType<typeof publicRecords>): HandedRecord[] {
  return [
    ...weights.map((one): HandedRecord => ({ kind: 'weight', ...one })),
    ...feedings.map((one): HandedRecord => ({ kind: 'feeding', ...one })),
    ...sheds.map((one): HandedRecord => ({ kind: 'shed', ...one })),
  ].toSorted((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
}
