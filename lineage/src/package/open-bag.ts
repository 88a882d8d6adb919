import type { FileFault } from '../verify/problems.ts';
import { refusal } from '../document/fields.ts';
import { DECLARATION, MANIFEST, PAYLOAD, TAG_MANIFEST } from './bag-layout.ts';
import { openArchive, type ArchivedFile } from './open-archive.ts';

/** A BagIt bag (RFC 8493) in a zip: what it holds, and what its manifests say of that. */

export interface Bag {
  /** Payload by its path within `data/`. */
  readonly payload: ReadonlyMap<string, ArchivedFile>;
  /** Payload that does not agree with the manifest, by its path within `data/`. */
  readonly faults: ReadonlyMap<string, FileFault>;
  /** The bag's own files that do not agree with theirs. */
  readonly tagFaults: ReadonlyMap<string, FileFault>;
}

/** `<digest> <path>`, with carriage returns and line feeds of a path percent-encoded (section 2.1.3). */
const MANIFEST_LINE = /^([0-9a-fA-F]{64})[ \t]+(\S.*)$/;

/**
 * Opens a package and holds its files against its manifests.
 *
 * @param keeps - whether a file is wanted whole, besides those that are read here
 * @throws InputError where it is no zip, no bag, or a limit is passed
 */
export async function openBag(
  archive: Uint8Array,
  keeps: (path: string) => boolean = () => false,
): Promise<Bag> {
  return checkBag(await openArchive(archive, (path) => isText(path) || keeps(path)));
}

/** What has to be kept whole of a bag so that it can be checked. */
export const isText = (path: string): boolean => /\.(txt|json)$/.test(path);

/**
 * Holds the files of an archive against the manifests among them.
 *
 * @throws InputError where they are no bag
 */
export function checkBag(archived: ReadonlyMap<string, ArchivedFile>): Bag {
  const files = inBag(archived);
  const declared = textOf(files, DECLARATION).split(/\r?\n|\r/);
  if (
    declared[0]?.trim() !== 'BagIt-Version: 1.0' ||
    !/^Tag-File-Character-Encoding: *UTF-8\s*$/i.test(declared[1] ?? '')
  )
    throw refusal(DECLARATION, 'must say BagIt-Version: 1.0 and UTF-8', 'bag');
  const payload = pick(files, (path) => path.startsWith(PAYLOAD));
  const tags = pick(files, (path) => !path.startsWith(PAYLOAD) && path !== TAG_MANIFEST);
  const faults = compare(payload, readManifest(textOf(files, MANIFEST), MANIFEST));
  const tagFaults = files.has(TAG_MANIFEST)
    ? compare(tags, readManifest(textOf(files, TAG_MANIFEST), TAG_MANIFEST))
    : new Map<string, FileFault>([[TAG_MANIFEST, 'file-missing']]);
  return { payload: withinPayload(payload), faults: withinPayload(faults), tagFaults };
}

type Files = ReadonlyMap<string, ArchivedFile>;

/** The bag's files: it lies in a folder of its own, as section 4 wants it, or at the top. */
function inBag(files: Files): Files {
  if (files.has(DECLARATION)) return files;
  const [first] = files.keys();
  const folder = first?.slice(0, first.indexOf('/') + 1) ?? '';
  if (folder === '' || ![...files.keys()].every((path) => path.startsWith(folder)))
    throw refusal('archive', 'is no bag', 'bag');
  const within = new Map([...files].map(([path, file]) => [path.slice(folder.length), file]));
  if (!within.has(DECLARATION)) throw refusal('archive', 'is no bag', 'bag');
  return within;
}

const pick = (files: Files, test: (path: string) => boolean): Files =>
  new Map([...files].filter(([path]) => test(path)));

function textOf(files: Files, path: string): string {
  const bytes = files.get(path)?.bytes;
  if (!bytes) throw refusal('archive', `is no bag: it lacks ${path}`, 'bag');
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw refusal(path, 'is not UTF-8', 'bag');
  }
}

/** @returns path -> the digests that it is listed with */
function readManifest(text: string, name: string): ReadonlyMap<string, ReadonlySet<string>> {
  const listed = new Map<string, Set<string>>();
  for (const line of text.split(/\r\n|\n|\r/)) {
    if (line.trim() === '') continue;
    const match = MANIFEST_LINE.exec(line);
    if (!match) throw refusal(name, 'holds a line that is no digest and path', 'bag');
    const path = match[2]!.replace(/^\.\//, '').replace(/%(0A|0D|25)/gi, (code) => decodeURIComponent(code));
    const digests = listed.get(path) ?? new Set<string>();
    listed.set(path, digests.add(match[1]!.toLowerCase()));
  }
  return listed;
}

function compare(
  files: Files,
  listed: ReadonlyMap<string, ReadonlySet<string>>,
): ReadonlyMap<string, FileFault> {
  const faults = new Map<string, FileFault>();
  for (const [file, digests] of listed) {
    const found = files.get(file);
    if (!found) faults.set(file, 'file-missing');
    else if (digests.size > 1) faults.set(file, 'file-listed-twice');
    else if (!digests.has(found.digest)) faults.set(file, 'file-changed');
  }
  for (const file of files.keys()) if (!listed.has(file)) faults.set(file, 'file-not-listed');
  return faults;
}

const withinPayload = <T>(files: ReadonlyMap<string, T>): Map<string, T> =>
  new Map(
    [...files].map(([path, value]) => [path.startsWith(PAYLOAD) ? path.slice(PAYLOAD.length) : path, value]),
  );
