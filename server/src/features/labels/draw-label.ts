import type { DrawnLabel } from '@karyotome/contract';
import type { LabelContent } from '../../domain/labels/printed-labels.ts';
import { drawCode } from '../../print/code.ts';
import { widthOf } from '../../print/typeface.ts';
import type { LabelStock } from './label-sizes.ts';

const MARGIN_MM = 1.8;
/** Free of print around a code (ISO/IEC 18004 asks for four of its squares). */
const QUIET_MM = 2;
/** Below this a line cannot be read at arm's length; then it is cut. */
const SMALLEST_MM = 1.7;
const LINE = 1.22;
/** How far up a capital reaches from its baseline, of the type size. */
const CAP = 0.67;

/** Lays out one label: the number as large as it fits, then the lines, and the code at the right. */
export function drawLabel(content: LabelContent, stock: LabelStock): DrawnLabel {
  const { heightMm } = stock;
  const inner = heightMm - 2 * MARGIN_MM;
  const side = Math.min(inner, stock.widthMm * 0.34);
  const qr = drawCode(content.url);
  const width = stock.widthMm - 2 * MARGIN_MM - side - QUIET_MM;
  const texts: DrawnLabel['texts'] = [];
  const isFull = content.kind === 'full';
  const numberMm = Math.min(isFull ? inner * 0.26 : inner * 0.6, width / widthOf(headOf(content), 1, 'bold'));
  const bottom = heightMm - MARGIN_MM;
  const set = (text: string, y: number, sizeMm: number, isBold = false): void => {
    const widthMm = widthOf(text, sizeMm, isBold ? 'bold' : 'regular');
    texts.push({ text, x: MARGIN_MM, y, sizeMm, widthMm, isBold });
  };
  if (!isFull) {
    set(headOf(content), heightMm / 2 + (numberMm * CAP) / 2, numberMm, true);
  } else {
    const top = MARGIN_MM + numberMm * CAP;
    set(headOf(content), top, numberMm, true);
    const smallMm = Math.max(SMALLEST_MM, Math.min(inner * 0.1, 2.6));
    const foot = [content.hatchedOn ? `hatched ${content.hatchedOn}` : '', content.parents].filter(Boolean);
    foot.toReversed().forEach((line, i) => {
      set(fitted(line, smallMm, width), bottom - i * smallMm * LINE - smallMm * 0.2, smallMm);
    });
    const room = bottom - foot.length * smallMm * LINE - top - numberMm * 0.3;
    const { lines, sizeMm } = wrapInto(content.genes, width, room, Math.min(4.2, inner * 0.16));
    lines.forEach((line, i) =>
      set(line, top + numberMm * 0.3 + sizeMm * (CAP + 0.1) + i * sizeMm * LINE, sizeMm),
    );
  }
  return {
    animalId: content.animalId,
    number: content.number,
    texts,
    qr: { ...qr, x: stock.widthMm - MARGIN_MM - side, y: (heightMm - side) / 2, sideMm: side },
  };
}

function headOf({ kind, number, sex }: LabelContent): string {
  return kind === 'numbers' || sex === 'unknown' ? number : `${number}  ${sex}`;
}

/** The largest type in which the words fit; the rest is cut with an ellipsis where even the smallest does not. */
function wrapInto(
  text: string,
  widthMm: number,
  heightMm: number,
  largestMm: number,
): { lines: string[]; sizeMm: number } {
  for (let sizeMm = largestMm; ; sizeMm -= 0.1) {
    const size = Math.max(sizeMm, SMALLEST_MM);
    const lines = wrap(text, size, widthMm);
    const most = Math.max(1, Math.floor(heightMm / (size * LINE)));
    if (lines.length <= most) return { lines, sizeMm: size };
    if (size === SMALLEST_MM) {
      const cut = lines.slice(0, most);
      cut[most - 1] = fitted(`${lines.slice(most - 1).join(' ')}`, size, widthMm);
      return { lines: cut, sizeMm: size };
    }
  }
}

function wrap(text: string, sizeMm: number, widthMm: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const longer = lines.length > 0 ? `${lines.at(-1)} ${word}` : word;
    if (lines.length > 0 && widthOf(longer, sizeMm) <= widthMm) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines.map((line) => fitted(line, sizeMm, widthMm));
}

function fitted(line: string, sizeMm: number, widthMm: number): string {
  if (widthOf(line, sizeMm) <= widthMm) return line;
  let cut = line;
  while (cut.length > 1 && widthOf(`${cut}…`, sizeMm) > widthMm) cut = cut.slice(0, -1).trimEnd();
  return `${cut}…`;
}
