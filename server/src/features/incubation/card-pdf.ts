import type { ClutchView } from '@karyotome/contract';
import { Reader, type ReaderSettings } from '@karyotome/words';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { factLine as line, SOFT, toPdf } from '../../print/pdf.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'card-pdf': typeof cardPdf;
  }
}

/** The clutch card on one page: the pair, the dates, the counts, and the eggs as they lie in the box. */
export function drawCard({
  clutch,
  collection,
  printedOn,
  reader: settings,
}: CardOrder): TDocumentDefinitions {
  const reader = new Reader(settings);
  return {
    pageSize: 'A5',
    pageMargins: [34, 34, 34, 34],
    info: { title: `Clutch ${clutch.name}`, author: collection },
    content: [
      { text: `Clutch ${clutch.name}`, fontSize: 22, bold: true },
      { text: `${collection}, season ${clutch.season}`, color: SOFT, margin: [0, 0, 0, 10] },
      {
        layout: 'lightHorizontalLines',
        table: {
          widths: [92, '*'],
          body: facts(clutch, reader),
        },
      },
      { svg: drawBox(clutch, reader), width: 300, margin: [0, 14, 0, 6] },
      {
        text: 'A dot is the mark on top: never roll an egg. Joined eggs are stuck together; white ones are slugs, dashed ones doubtful.',
        fontSize: 8,
        color: SOFT,
      },
      ...(clutch.note ? [{ text: clutch.note, margin: [0, 8, 0, 0] } as Content] : []),
      { text: `Printed ${reader.day(printedOn)}`, fontSize: 8, color: SOFT, margin: [0, 10, 0, 0] },
    ],
  };
}

/** The pair, the days and the counts, a line each. */
function facts(clutch: ClutchView, reader: Reader): TableCell[][] {
  const dayOr = (day: string | null, otherwise: string): string =>
    day === null ? otherwise : reader.day(day);
  const pipOn = clutch.events.find(({ kind }) => kind === 'pip' || kind === 'out')?.on ?? null;
  const isDone = clutch.hatchedOn !== null;
  return [
    line('Dam', [
      { text: `${clutch.dam.number} ${clutch.dam.name ?? ''}`, bold: true },
      { text: clutch.dam.label, fontSize: 9 },
    ]),
    ...clutch.sires.map((sire, i) =>
      line(i === 0 ? 'Sire' : 'or', [
        {
          text: `${sire.number} ${sire.name ?? ''}${clutch.sires.length > 1 ? `  (${reader.percent(sire.p)} before any gene${sire.stored ? ', stored sperm' : ''})` : ''}`,
          bold: !sire.stored,
        },
        { text: sire.label, fontSize: 9 },
      ]),
    ),
    line('Locks seen', String(clutch.locks)),
    line('Ovulation', dayOr(clutch.ovulatedOn, 'not recorded')),
    line('Pre-lay shed', dayOr(clutch.shedOn, 'not recorded')),
    line('Laid', reader.day(clutch.laidOn)),
    line('First pip', dayOr(pipOn, isDone ? 'not recorded' : 'not yet')),
    line('Hatched', dayOr(clutch.hatchedOn, 'not yet')),
    line(
      'Incubator',
      `${clutch.incubator?.name ?? ''}${clutch.incubationC ? ` at ${reader.temperature(clutch.incubationC)}` : ''}`.trim() ||
        'not recorded',
    ),
    line('Eggs', eggsLine(clutch, isDone)),
  ];
}

function eggsLine({ counts, hatched }: ClutchView, isDone: boolean): string {
  return [
    `${counts.good + counts.slugs} laid`,
    `${counts.good} good`,
    ...(counts.slugs > 0 ? [`${counts.slugs} ${counts.slugs === 1 ? 'slug' : 'slugs'}`] : []),
    ...(counts.died > 0 ? [`${counts.died} died in the egg`] : []),
    ...(isDone ? [`${hatched} young`] : []),
  ].join(', ');
}

/** The eggs where they lie, by number, with their weight, or what became of them; stuck ones joined, marked tops dotted. */
function drawBox({ eggs }: ClutchView, reader: Reader): string {
  const drawn = eggs.map(({ position, x, y, verdict, massG, marked, state }) => {
    const [cx, cy] = [x * 3, y * 1.5];
    const dash = verdict === 'doubtful' ? ' stroke-dasharray="3 2"' : '';
    const fill = verdict === 'slug' ? '#fff' : '#eee6d8';
    const below = state.stage === 'in-egg' ? (massG ? reader.mass(Math.round(massG)) : '') : state.stage;
    return `<ellipse cx="${cx}" cy="${cy}" rx="22" ry="16" fill="${fill}" stroke="#333"${dash}/>
      <text x="${cx}" y="${cy + 1}" font-size="11" text-anchor="middle" fill="#111">${position}</text>
      ${below ? `<text x="${cx}" y="${cy + 11}" font-size="7" text-anchor="middle" fill="#333">${below}</text>` : ''}
      ${marked ? `<circle cx="${cx}" cy="${cy - 11}" r="1.6" fill="#111"/>` : ''}`;
  });
  const bonds = eggs.flatMap((egg, i) => {
    const next = egg.stuck === null ? undefined : eggs.slice(i + 1).find(({ stuck }) => stuck === egg.stuck);
    return next
      ? `<line x1="${egg.x * 3}" y1="${egg.y * 1.5}" x2="${next.x * 3}" y2="${next.y * 1.5}" stroke="#999" stroke-width="5"/>`
      : [];
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-12 -12 324 174"><rect x="-10" y="-10" width="320" height="170" rx="8" fill="none" stroke="#888"/>${bonds.join('')}${drawn.join('')}</svg>`;
}

export interface CardOrder {
  readonly clutch: ClutchView;
  readonly collection: string;
  readonly printedOn: string;
  /** How whoever prints it reads. */
  readonly reader: ReaderSettings;
}

/** The clutch card as a PDF. Run in a thread. */
export function cardPdf(order: CardOrder): Promise<Uint8Array> {
  return toPdf(drawCard(order));
}
