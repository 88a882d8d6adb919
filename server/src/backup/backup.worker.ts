import type { BackupFault } from '@karyotome/contract';
import { Refusal } from '../refusal.ts';
import { faultOf, makeBackup, type BackupConfig, type MadeBackup } from './make-backup.ts';

/* A thread of its own that makes one backup: digests of large files would keep the answering thread busy. */

/** Errors lose what they carry on their way between threads, so a failure is an answer. */
export type ThreadAnswer = MadeBackup | { readonly fault: BackupFault | 'busy'; readonly message: string };

export default async function run({
  config,
  folder,
}: {
  config: BackupConfig;
  folder: string;
}): Promise<ThreadAnswer> {
  try {
    return await makeBackup(config, folder, 'regular');
  } catch (error) {
    const isBusy = error instanceof Refusal && error.code === 'busy';
    return { fault: isBusy ? 'busy' : faultOf(error), message: (error as Error).message };
  }
}
