import type { Meal } from '@karyotome/core';
import type { RecordFact } from '@karyotome/contract';
import {
  BUYER_CAUTIONS,
  KIND_WORDS,
  preyWords,
  Reader,
  recordWords,
  SETTLING_ADVICE,
  type ReaderSettings,
} from '@karyotome/words';
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { factLine, SOFT, toPdf } from '../../print/pdf.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'care-sheet-pdf': typeof careSheetPdf;
  }
}

export interface CareSheet {
  readonly collection: string;
  readonly printedOn: string;
  readonly reader: ReaderSettings;
  readonly animal: {
    readonly number: string;
    readonly name: string | null;
    readonly label: string;
    readonly sex: string;
    readonly hatchedOn: string | null;
  };
  readonly weight: { readonly on: string; readonly massG: number } | null;
  readonly shed: { readonly on: string; readonly complete: boolean | null } | null;
  /** The newest first. */
  readonly meals: readonly {
    readonly on: string;
    readonly species: string;
    readonly size: string;
    readonly state: string | null;
    readonly taken: boolean;
  }[];
  readonly counts: { readonly taken: number; readonly offered: number; readonly inARow: number };
  readonly next: Pick<Meal, 'species' | 'size' | 'state' | 'massG' | 'dueOn' | 'everyDays'> | null;
  readonly plan: string | null;
  readonly tub: { readonly kind: string; readonly inside: string } | null;
  readonly heat: { readonly warmC: number; readonly coolC: number } | null;
  /** Of its genes. */
  readonly cautions: readonly string[];
  /** Records of its health, the newest first; null where they are not to be told. */
  readonly health: readonly { readonly on: string; readonly fact: RecordFact }[] | null;
}

/** So many meals fit on the page. */
const MEALS_SHOWN = 12;

/** How an animal was kept, on one page, for whoever keeps it next. */
export function drawCareSheet(sheet: CareSheet): TDocumentDefinitions {
  const { animal, collection } = sheet;
  const reader = new Reader(sheet.reader);
  return {
    pageSize: 'A4',
    pageMargins: [44, 40, 44, 40],
    info: { title: `Care sheet ${animal.number}`, author: collection },
    content: [
      { text: `${animal.number} ${animal.name ?? ''}`, fontSize: 22, bold: true },
      { text: animal.label, fontSize: 12, bold: true },
      { text: `Care sheet of ${collection}`, color: SOFT, margin: [0, 0, 0, 10] },
      { layout: 'lightHorizontalLines', table: { widths: [110, '*'], body: facts(sheet, reader) } },
      { text: 'Its latest meals', fontSize: 13, bold: true, margin: [0, 12, 0, 4] },
      meals(sheet, reader),
      ...health(sheet, reader),
      { text: 'When it arrives', fontSize: 13, bold: true, margin: [0, 12, 0, 4] },
      { text: SETTLING_ADVICE },
      { text: 'Please note', fontSize: 13, bold: true, margin: [0, 12, 0, 4] },
      { ul: [...sheet.cautions, ...BUYER_CAUTIONS], fontSize: 9 },
      { text: `Printed ${reader.day(sheet.printedOn)}`, fontSize: 8, color: SOFT, margin: [0, 10, 0, 0] },
    ],
  };
}

function facts(
  { animal, weight, shed, counts, next, plan, tub, heat }: CareSheet,
  reader: Reader,
): TableCell[][] {
  const wholeness = shed?.complete === false ? 'in pieces' : 'in one piece';
  return [
    factLine('Sex', animal.sex),
    factLine('Hatched', animal.hatchedOn ? reader.day(animal.hatchedOn) : 'not recorded'),
    factLine('Weight', weight ? `${reader.mass(weight.massG)} on ${reader.day(weight.on)}` : 'never weighed'),
    factLine('Last shed', shed ? `${reader.day(shed.on)}, ${wholeness}` : 'not recorded'),
    factLine(
      'Meals',
      `${reader.number(counts.taken)} of ${reader.number(counts.offered)} taken, the last ${reader.number(counts.inARow)} in a row`,
    ),
    factLine('Fed by', plan ?? 'no plan'),
    factLine(
      'Next meal',
      next
        ? `${preyWords(next, reader)}, on ${reader.day(next.dueOn)}; every ${reader.days(next.everyDays)}`
        : 'not known',
    ),
    factLine('Tub', tub ? [tub.kind, tub.inside].filter(Boolean).join(', ') : 'not recorded'),
    factLine(
      'Heat at the surface',
      heat
        ? `warm side ${reader.temperature(heat.warmC)}, cool side ${reader.temperature(heat.coolC)}`
        : 'not recorded',
    ),
  ];
}

function meals({ meals: all }: CareSheet, reader: Reader): Content {
  if (all.length === 0) return { text: 'None recorded.' };
  return {
    layout: 'lightHorizontalLines',
    fontSize: 9,
    table: {
      widths: [80, '*', 90, 60],
      body: all
        .slice(0, MEALS_SHOWN)
        .map(({ on, species, size, state, taken }) => [
          reader.day(on),
          `${species} ${size}`,
          state ?? '',
          taken ? 'taken' : 'refused',
        ]),
    },
  };
}

function health({ health: records }: CareSheet, reader: Reader): Content[] {
  if (records === null) return [];
  return [
    { text: 'Its health, as recorded', fontSize: 13, bold: true, margin: [0, 12, 0, 4] },
    records.length === 0
      ? { text: 'Nothing recorded.' }
      : {
          layout: 'lightHorizontalLines',
          fontSize: 9,
          table: {
            widths: [80, 130, '*'],
            body: records.map(({ on, fact }) => [
              reader.day(on),
              KIND_WORDS[fact.kind],
              recordWords(fact, reader),
            ]),
          },
        },
  ];
}

/** A care sheet as a PDF. Run in a thread. */
export function careSheetPdf(sheet: CareSheet): Promise<Uint8Array> {
  return toPdf(drawCareSheet(sheet));
}
