import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';

const FONTS = join(
  dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')),
  'fonts',
  'Roboto',
);
pdfmake.addFonts({
  Roboto: {
    normal: join(FONTS, 'Roboto-Regular.ttf'),
    bold: join(FONTS, 'Roboto-Medium.ttf'),
    italics: join(FONTS, 'Roboto-Italic.ttf'),
    bolditalics: join(FONTS, 'Roboto-MediumItalic.ttf'),
  },
});
// A paper is made of what is in the database: it fetches nothing, and reads no file but its fonts.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.endsWith('.ttf'));

export const SOFT = '#555';

/** A line of a table of facts: what it is, and its value. */
export const factLine = (label: string, value: Content): TableCell[] => [{ text: label, color: SOFT }, value];

/** A paper as PDF. Run in a thread. */
export function toPdf(paper: TDocumentDefinitions): Promise<Uint8Array> {
  return pdfmake.createPdf({ defaultStyle: { font: 'Roboto', fontSize: 10 }, ...paper }).getBuffer();
}
