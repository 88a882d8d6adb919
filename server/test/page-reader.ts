import { Window } from 'happy-dom';

export const EUROPE = { 'Accept-Language': 'en-GB' };

/** Asks for pages as a visitor, and reads them by a parser of its own, without any script being run. */
export function pageReader(origin: () => string) {
  const get = (path: string, headers: Record<string, string> = EUROPE): Promise<Response> =>
    fetch(`${origin()}${path}`, { headers, redirect: 'manual' });
  async function read(path: string) {
    const response = await get(path);
    const html = await response.text();
    const { document } = new Window({ settings: { disableJavaScriptEvaluation: true } });
    document.write(html);
    const text = (document.body.textContent ?? '').replace(/\s+/g, ' ');
    const meta = (property: string): string | null =>
      document.querySelector(`meta[property="${property}"]`)?.getAttribute('content') ?? null;
    return { response, html, document, text, meta };
  }
  return { get, read };
}
