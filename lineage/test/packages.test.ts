import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  BlobReader,
  configure,
  Uint8ArrayReader,
  Uint8ArrayWriter,
  ZipReader,
  ZipWriter,
} from '@zip.js/zip.js';
import { describe, expect, test } from 'vitest';
import { InputError } from '@karyotome/core';
import { openArchive } from '../src/package/open-archive.ts';
import { createBag, digestMultibase, verifyFile, type Verification } from '../src/index.ts';
import { altered, statementOf, toBytes } from './documents.ts';

configure({ useWebWorkers: false });

const AT = new Date('2026-11-28T10:00:00Z');
const PICTURE = new TextEncoder().encode('not looked into: any bytes are a picture here');
const pictures = [
  { file: 'pictures/a.jpg', mediaType: 'image/jpeg', digestMultibase: digestMultibase(PICTURE) },
];
const withPicture = statementOf({ pictures });

const bag = (files: Record<string, unknown>): Promise<Uint8Array> =>
  createBag(
    '2602-02',
    new Map(
      Object.entries(files).map(([path, one]) => [path, one instanceof Uint8Array ? one : toBytes(one)]),
    ),
    AT,
  );
const verified = async (files: Record<string, unknown>) =>
  (await verifyFile(await bag(files))) as Verification;
const whole = () => bag({ 'lineage.json': withPicture, 'pictures/a.jpg': PICTURE, 'records.json': {} });

/** A zip of any entries, as a stranger might make it. */
async function zipOf(entries: [string, Uint8Array | string, object?][]): Promise<Uint8Array> {
  const zip = new ZipWriter(new Uint8ArrayWriter());
  for (const [name, content, options] of entries)
    await zip.add(name, new Uint8ArrayReader(toBytesOf(content)), options);
  return zip.close();
}
const toBytesOf = (content: Uint8Array | string): Uint8Array =>
  typeof content === 'string' ? new TextEncoder().encode(content) : content;

/** A package with some of its files changed, left out (null) or added, and its manifests left as they are. */
async function retouched(changes: Record<string, Uint8Array | string | null>): Promise<Uint8Array> {
  const reader = new ZipReader(new BlobReader(new Blob([(await whole()) as BlobPart])));
  const files = new Map<string, Uint8Array | string>();
  for (const entry of await reader.getEntries())
    if (!entry.directory) files.set(entry.filename, await entry.getData(new Uint8ArrayWriter()));
  for (const [path, content] of Object.entries(changes)) {
    if (content === null) files.delete(`2602-02/${path}`);
    else files.set(`2602-02/${path}`, content);
  }
  return zipOf([...files]);
}

describe('a package', () => {
  test('is valid where everything is listed and intact', async () => {
    expect(await verifyFile(await whole())).toMatchObject({
      format: 'karyotome-verification/1',
      valid: true,
      files: [
        { file: 'pictures/a.jpg', intact: true },
        { file: 'records.json', intact: true },
      ],
      problems: [],
    });
  });

  test('is a bag whose manifests sha256sum accepts', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'karyotome-bag-'));
    try {
      writeFileSync(join(folder, 'bag.zip'), await whole());
      execFileSync('unzip', ['-q', 'bag.zip'], { cwd: folder });
      const within = { cwd: join(folder, '2602-02'), encoding: 'utf8' } as const;
      const checked = execFileSync('sha256sum', ['--strict', '-c', 'manifest-sha256.txt'], within);
      expect(checked.trim().split('\n')).toHaveLength(3);
      execFileSync('sha256sum', ['--strict', '-c', 'tagmanifest-sha256.txt'], within);
      expect(readFileSync(join(within.cwd, 'bagit.txt'), 'utf8')).toBe(
        'BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n',
      );
    } finally {
      rmSync(folder, { recursive: true });
    }
  });

  test('lies in the zip without a folder of its own as well', async () => {
    const reader = new ZipReader(new BlobReader(new Blob([(await whole()) as BlobPart])));
    const flat: [string, Uint8Array][] = [];
    for (const entry of await reader.getEntries())
      if (!entry.directory)
        flat.push([entry.filename.slice('2602-02/'.length), await entry.getData(new Uint8ArrayWriter())]);
    expect(await verifyFile(await zipOf(flat))).toMatchObject({ valid: true });
  });

  test.each([
    ['a changed picture', { 'data/pictures/a.jpg': 'another' }, 'file-changed', 'pictures/a.jpg'],
    ['a picture that is gone', { 'data/pictures/a.jpg': null }, 'file-missing', 'pictures/a.jpg'],
    ['changed records', { 'data/records.json': '[]' }, 'file-changed', 'records.json'],
    ['a file that nobody listed', { 'data/more.txt': 'x' }, 'file-not-listed', 'more.txt'],
  ])('is not valid with %s', async (_what, changes, code, file) => {
    const answer = (await verifyFile(await retouched(changes))) as Verification;
    expect(answer).toMatchObject({ valid: false, signature: 'valid' });
    expect(answer.problems).toContainEqual({ code, facts: { file } });
    expect(answer.files).toContainEqual({ file, intact: false });
  });

  test.each([
    [
      'a changed manifest',
      { 'manifest-sha256.txt': `${'0'.repeat(64)}  data/lineage.json\n` },
      'file-changed',
    ],
    [
      'a changed declaration',
      { 'bagit.txt': 'BagIt-Version: 1.0\nTag-File-Character-Encoding: utf-8\n' },
      'file-changed',
    ],
    ['a tag file that nobody listed', { 'note.txt': 'x' }, 'file-not-listed'],
    ['no manifest of its tags', { 'tagmanifest-sha256.txt': null }, 'file-missing'],
  ])('is not valid with %s', async (_what, changes, code) => {
    const answer = (await verifyFile(await retouched(changes))) as Verification;
    expect(answer.valid).toBe(false);
    expect(answer.problems.map((problem) => problem.code)).toContain(code);
  });

  test('is not valid with another picture than the statement names, though the manifest agrees', async () => {
    const answer = await verified({ 'lineage.json': withPicture, 'pictures/a.jpg': toBytes('another') });
    expect(answer).toMatchObject({ valid: false, files: [{ file: 'pictures/a.jpg', intact: false }] });
  });

  test('with several animals answers a list', async () => {
    const files = {
      '2602-02/lineage.json': statementOf(),
      '2602-03/lineage.json': statementOf({ number: '2602-03' }),
    };
    expect(await verifyFile(await bag(files))).toMatchObject({
      format: 'karyotome-verification-list/1',
      valid: true,
      documents: [{ subject: { number: '2602-02' } }, { subject: { number: '2602-03' } }],
    });
    const spoilt = {
      ...files,
      '2602-03/lineage.json': altered(statementOf(), 'credentialSubject.number', '9'),
    };
    expect(await verifyFile(await bag(spoilt))).toMatchObject({
      valid: false,
      documents: [{ valid: true }, { valid: false, signature: 'invalid' }],
    });
  });

  test.each([
    ['without a statement', { 'records.json': {} }, 'archive: holds no lineage.json'],
    ['with a statement that is none', { 'lineage.json': {} }, 'data/lineage.json: credentialSubject.format'],
    [
      'with an earlier statement that is none',
      { 'lineage.json': statementOf(), 'earlier/1.json': '{"a":1,"a":2}' },
      'data/earlier/1.json: a: is given twice',
    ],
  ])('%s is refused', async (_what, files, message) => {
    await expect(verified(files)).rejects.toThrow(message);
  });

  test.each<[string, [string, Uint8Array | string, object?][], string]>([
    ['no bag', [['a.txt', 'x']], 'is no bag'],
    ['an entry that leaves its folder', [['../a', 'x']], 'leaves its folder'],
    ['an entry at the root of the disk', [['/etc/a', 'x']], 'leaves its folder'],
    ['a path of another system', [['a\\..\\b', 'x']], 'leaves its folder'],
    ['a drive', [['C:/a', 'x']], 'leaves its folder'],
    [
      'a link',
      [['a', 'b', { externalFileAttributes: 0o120777 * 0x10000, versionMadeBy: 0x031e }]],
      'is a link',
    ],
    ['a locked entry', [['a', 'x', { password: 'p' }]], 'is encrypted'],
    [
      'another version',
      [['bagit.txt', 'BagIt-Version: 0.97\nTag-File-Character-Encoding: UTF-8\n']],
      'bagit.txt: must say',
    ],
  ])('of %s is refused', async (_what, entries, message) => {
    await expect(verifyFile(await zipOf(entries))).rejects.toThrow(message);
  });

  test('cut short is refused', async () => {
    const bytes = await whole();
    await expect(verifyFile(bytes.slice(0, bytes.length - 40))).rejects.toThrow('is no zip that can be read');
  });

  const limits = { files: 3, bytes: 1_000, keptBytes: 100 };
  test.each<[string, [string, Uint8Array | string][], string]>([
    [
      'too many files',
      [
        ['a', ''],
        ['b', ''],
        ['c', ''],
        ['d', ''],
      ],
      'holds more than 3 files',
    ],
    [
      'too many bytes',
      [
        ['a', new Uint8Array(600)],
        ['b', new Uint8Array(600)],
      ],
      'unpacks to more than 1000 bytes',
    ],
    ['a document that is too large', [['a.json', new Uint8Array(200)]], 'which is larger than 100 bytes'],
  ])('with %s is refused', async (_what, entries, message) => {
    const opened = openArchive(await zipOf(entries), (path) => path.endsWith('.json'), limits);
    await expect(opened).rejects.toThrow(message);
  });

  test('that says less of itself than it unpacks to is refused', async () => {
    const bytes = await zipOf([['a', new Uint8Array(5_000)]]);
    const view = new DataView(bytes.buffer, bytes.byteOffset);
    // The unpacked size stands 22 bytes after the signature of a local header, 24 after that of the directory's (APPNOTE 4.3).
    const directory = Array.from(bytes.keys()).find((at) => view.getUint32(at, true) === 0x02014b50)!;
    view.setUint32(22, 500, true);
    view.setUint32(directory + 24, 500, true);
    await expect(openArchive(bytes, () => false, limits)).rejects.toThrow(InputError);
  });

  test('packed again by another program is read', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'karyotome-bag-'));
    try {
      writeFileSync(join(folder, 'own.zip'), await whole());
      execFileSync('unzip', ['-q', 'own.zip'], { cwd: folder });
      execFileSync('zip', ['-qr', 'again.zip', '2602-02'], { cwd: folder });
      expect(await verifyFile(readFileSync(join(folder, 'again.zip')))).toMatchObject({ valid: true });
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});
