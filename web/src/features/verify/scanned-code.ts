/** What a scanned code leads to. */
export type ScannedCode =
  | { readonly is: 'key'; readonly did: string }
  /** A statement's address. @see {@link scannedCode} */
  | {
      readonly is: 'statement';
      readonly url: string;
      readonly slug: string;
      readonly statement: number;
      readonly isHere: boolean;
    }
  | { readonly is: 'hand-over'; readonly url: string }
  | null;

/**
 * Reads a code: of a signing key, of a statement's page, or of a hand-over.
 *
 * @param origin - of this page: only of its own server are statements fetched
 */
export function scannedCode(text: string, origin: string): ScannedCode {
  if (/^did:key:z[1-9A-HJ-NP-Za-km-z]+$/.test(text)) return { is: 'key', did: text };
  if (!URL.canParse(text)) return null;
  const url = new URL(text);
  if (url.protocol !== 'https:' && url.protocol !== 'http:') return null;
  const [, slug, statement] = /^\/p\/([\w-]+)\/statements\/(\d{1,6})$/.exec(url.pathname) ?? [];
  if (slug !== undefined && statement !== undefined) {
    const isHere = url.origin === origin;
    return { is: 'statement', url: url.href, slug, statement: Number(statement), isHere };
  }
  return /^\/h\/[\w-]+$/.test(url.pathname) ? { is: 'hand-over', url: url.href } : null;
}
