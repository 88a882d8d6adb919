import type { DrawnLabel } from '@karyotome/contract';
import PDFDocument from 'pdfkit';
import { FACES } from '../../print/typeface.ts';
import type { LabelContent } from '../../domain/labels/printed-labels.ts';
import { drawLabel } from './draw-label.ts';
import type { LabelStock } from './label-sizes.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'draw-labels': typeof drawLabels;
    'label-pdf': typeof labelPdf;
  }
}

const PT_PER_MM = 72 / 25.4;

export interface LabelSheetOrder {
  readonly contents: readonly LabelContent[];
  readonly stock: LabelStock;
  /** Places on the first sheet that are used already. */
  readonly skip: number;
  readonly title: string;
}

/** Labels as they are drawn on the screen. */
export function drawLabels({ contents, stock }: Pick<LabelSheetOrder, 'contents' | 'stock'>): DrawnLabel[] {
  return contents.map((content) => drawLabel(content, stock));
}

/** Labels as a PDF: each its own page on a roll, or filling sheets from a place on. */
export function labelPdf({ contents, stock, skip, title }: LabelSheetOrder): Promise<Uint8Array> {
  const labels = drawLabels({ contents, stock });
  const { sheet } = stock;
  const page = sheet ?? stock;
  const size: [number, number] = [page.widthMm * PT_PER_MM, page.heightMm * PT_PER_MM];
  const pdf = new PDFDocument({ size, margin: 0, autoFirstPage: false, info: { Title: title } });
  pdf.registerFont('regular', FACES.regular);
  pdf.registerFont('bold', FACES.bold);
  const perPage = sheet ? sheet.columns * sheet.rows : 1;
  labels.forEach((label, i) => {
    const place = sheet ? (i + skip) % perPage : 0;
    if (i === 0 || place === 0) pdf.addPage({ size, margin: 0 });
    const x = sheet ? sheet.leftMm + (place % sheet.columns) * sheet.stepXMm : 0;
    const y = sheet ? sheet.topMm + Math.floor(place / sheet.columns) * sheet.stepYMm : 0;
    drawOn(pdf, label, x, y);
  });
  return new Promise((resolve, reject) => {
    const parts: Buffer[] = [];
    pdf.on('data', (part: Buffer) => parts.push(part));
    pdf.on('end', () => resolve(Buffer.concat(parts)));
    pdf.on('error', reject);
    pdf.end();
  });
}

function drawOn(pdf: PDFKit.PDFDocument, { texts, qr }: DrawnLabel, xMm: number, yMm: number): void {
  pdf.save();
  pdf.translate(xMm * PT_PER_MM, yMm * PT_PER_MM).scale(PT_PER_MM);
  for (const { text, x, y, sizeMm, isBold } of texts) {
    pdf.font(isBold ? 'bold' : 'regular').fontSize(sizeMm);
    pdf.text(text, x, y, { lineBreak: false, baseline: 'alphabetic' });
  }
  if (qr) {
    pdf.translate(qr.x, qr.y).scale(qr.sideMm / qr.modules);
    pdf.path(qr.path).fill('#000');
  }
  pdf.restore();
}
