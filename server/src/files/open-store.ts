import { diskStore } from './disk-store.ts';
import { checked, type FileStore } from './file-store.ts';
import type { S3Place } from './s3-store.ts';

/** Where files are kept by this configuration: the data folder, or a bucket. @param onFault - told of damaged files */
export async function openStore(
  { dataDir, s3 }: { readonly dataDir: string; readonly s3: S3Place | null },
  onFault: (error: unknown) => void,
): Promise<FileStore> {
  if (s3 === null) return checked(diskStore(dataDir), onFault);
  // Its client is large: loaded where it is needed.
  const { s3Store } = await import('./s3-store.ts');
  return checked(s3Store(s3), onFault);
}
