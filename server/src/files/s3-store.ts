import {
  DeleteObjectCommand,
  GetObjectCommand,
  HeadObjectCommand,
  NoSuchKey,
  NotFound,
  paginateListObjectsV2,
  PutObjectCommand,
  S3Client,
} from '@aws-sdk/client-s3';
import { fileMissing, type FileStore, type StoredFile } from './file-store.ts';

export interface S3Place {
  readonly bucket: string;
  readonly region: string;
  /** The address of a store other than the region's own; null for that one. */
  readonly endpoint: string | null;
}

/** Of a request, its repetitions included: whoever waits is told to come back rather than kept. */
const ATTEMPTS = 3;

/**
 * Files as objects of a bucket, `<folder>/<name>`. Credentials come from where the AWS SDK finds them: `AWS_ACCESS_KEY_ID` and
 * `AWS_SECRET_ACCESS_KEY`, or what the machine has been given.
 */
export function s3Store({ bucket: Bucket, region, endpoint }: S3Place): FileStore {
  const client = new S3Client({
    region,
    maxAttempts: ATTEMPTS,
    // Stores that are run by oneself know buckets by path, not by name of a host.
    ...(endpoint === null ? {} : { endpoint, forcePathStyle: true }),
  });
  const Key = ({ folder, name }: StoredFile): string => `${folder}/${name}`;
  return {
    async write(file, data) {
      await client.send(new PutObjectCommand({ Bucket, Key: Key(file), Body: data }));
    },
    async read(file) {
      try {
        const { Body } = await client.send(new GetObjectCommand({ Bucket, Key: Key(file) }));
        return Buffer.from(await Body!.transformToByteArray());
      } catch (error) {
        throw error instanceof NoSuchKey ? fileMissing(error) : error;
      }
    },
    async has(file) {
      try {
        await client.send(new HeadObjectCommand({ Bucket, Key: Key(file) }));
        return true;
      } catch (error) {
        if (error instanceof NotFound) return false;
        throw error;
      }
    },
    async remove(files) {
      for (const file of files) await client.send(new DeleteObjectCommand({ Bucket, Key: Key(file) }));
    },
    async list(folder, prefix = '') {
      const found: (StoredFile & { ageMs: number })[] = [];
      const pages = paginateListObjectsV2({ client }, { Bucket, Prefix: `${folder}/${prefix}` });
      for await (const { Contents = [] } of pages)
        for (const { Key: key, LastModified } of Contents)
          found.push({
            folder,
            name: key!.slice(folder.length + 1),
            ageMs: Date.now() - LastModified!.getTime(),
          });
      return found;
    },
  };
}
