const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string): string => text.replace(/[&<>"]/g, (letter) => ESCAPES[letter]!);

/** Paragraphs as HTML; an address of a page can be followed. */
export function toHtml(paragraphs: readonly string[]): string {
  const linked = (text: string): string =>
    escaped(text).replace(/https?:\/\/[^\s"<>]+/g, (address) => `<a href="${address}">${address}</a>`);
  return `<!doctype html><html lang="en"><body>${paragraphs
    .map((text) => `<p>${linked(text).replaceAll('\n', '<br>')}</p>`)
    .join('')}</body></html>`;
}
