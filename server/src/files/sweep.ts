import { QueryTypes } from 'sequelize';
import type { Database } from '../db/work.ts';
import { FOLDERS, type FileStore, type StoredFile } from './file-store.ts';

/*
 * Rows and files are brought together at every start: what a crash left between them is found, whichever way it lies.
 */

export interface Sweep {
  /** Files that no row names: left by a write that was cut off. They are removed. */
  readonly removed: readonly StoredFile[];
  /** Files that a row names and that are not there. Only a backup can bring them back. */
  readonly missing: readonly StoredFile[];
}

/** A file so young may belong to a write that is under way in another process. */
const YOUNG_MS = 3_600_000;

/** Pictures that were deleted keep their files as long as they can be restored. */
export const BINNED_PICTURES = `
  select picture ->> 'file' as file, picture ->> 'thumb_file' as thumb_file, picture ->> 'original_file' as original_file,
         bin.collection_id
    from bin cross join lateral jsonb_array_elements(bin.content -> 'pictures') picture`;

/** What rows name. Stamped copies are made when they are asked for, so no row names them: they follow their picture. */
export const NAMED_SQL = `
  select 'pictures' as folder, name
    from (select file, thumb_file, original_file, collection_id from pictures union all ${BINNED_PICTURES}) pictures
    cross join lateral unnest(array[file, thumb_file, original_file]) name where name is not null
  union all select 'labels', file from label_sheets
  union all select 'cards', file from clutch_cards`;

/** The picture that a stamped copy is of: see picture-copies.ts. */
const STAMPED = /^stamped\/(.+)-[0-9a-f]{10}(-\d+)?\.webp$/;

export async function sweepFiles(
  { sequelize }: Database,
  files: FileStore,
  youngMs = YOUNG_MS,
): Promise<Sweep> {
  // The files first: a file that is written meanwhile is then either seen with its row, or not seen at all.
  const there = (await Promise.all(FOLDERS.map((folder) => files.list(folder)))).flat();
  const named = await sequelize.query<StoredFile>(NAMED_SQL, { type: QueryTypes.SELECT });
  const keyOf = ({ folder, name }: StoredFile): string => `${folder}/${name}`;
  const wanted = new Set(named.map(keyOf));
  const found = new Set(there.map(keyOf));
  const removed = there.filter((file) => {
    if (file.ageMs < youngMs) return false;
    const picture = STAMPED.exec(file.name)?.[1];
    return !wanted.has(picture === undefined ? keyOf(file) : `pictures/${picture}.webp`);
  });
  await files.remove(removed);
  return {
    removed: removed.map(({ folder, name }) => ({ folder, name })),
    missing: named.filter((file) => !found.has(keyOf(file))),
  };
}
