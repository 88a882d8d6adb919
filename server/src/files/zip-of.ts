import { TextReader, Uint8ArrayWriter, ZipWriter, configure } from '@zip.js/zip.js';

configure({ useWebWorkers: false });

/** Small texts as one zip. @param files - path and text of each */
export async function zipOf(files: readonly (readonly [string, string])[]): Promise<Buffer> {
  const zip = new ZipWriter(new Uint8ArrayWriter());
  for (const [path, text] of files) await zip.add(path, new TextReader(text));
  return Buffer.from(await zip.close());
}
