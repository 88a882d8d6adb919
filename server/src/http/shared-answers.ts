import { createHash } from 'node:crypto';
import { sharedWork } from '../shared-work.ts';

interface SharedAnswer {
  readonly bytes: Buffer;
  readonly etag: string;
}

/** Makes an answer once for all who ask for the same at once. */
export function sharedAnswers(): (key: string, make: () => Promise<unknown>) => Promise<SharedAnswer> {
  const beingMade = sharedWork<SharedAnswer>();
  return (key, make) =>
    beingMade(key, async () => {
      const bytes = Buffer.from(JSON.stringify(await make()));
      return { bytes, etag: `"${createHash('sha256').update(bytes).digest('base64url')}"` };
    });
}
