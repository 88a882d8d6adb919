import { createHash } from 'node:crypto';
import { readId } from '@karyotome/contract';

const URN = 'urn:uuid:';

/**
 * The id that an animal of a statement has here: its own for ever, where it is a `urn:uuid:`. A relative may have any other
 * id: then one is made of it and of the breeder's key (RFC 9562, version 8), the same each time.
 */
export function lastingId(issuer: string, id: string): string {
  const own = id.toLowerCase().startsWith(URN) ? readId(id.slice(URN.length)) : null;
  if (own !== null) return own;
  const hash = createHash('sha256').update(`${issuer} ${id}`).digest();
  hash[6] = (hash[6]! & 0x0f) | 0x80;
  hash[8] = (hash[8]! & 0x3f) | 0x80;
  const hex = hash.toString('hex');
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20, 32)].join(
    '-',
  );
}
