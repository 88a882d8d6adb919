import { HANDOVER_WORDS, Reader, type ReaderSettings } from '@karyotome/words';
import type { Handover } from '@karyotome/contract';
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { factLine, SOFT, toPdf } from '../../print/pdf.ts';

declare module '../../threads/pool.ts' {
  interface Tasks {
    'receipt-pdf': typeof receiptPdf;
  }
}

export interface Receipt {
  readonly collection: string;
  readonly printedOn: string;
  readonly reader: ReaderSettings;
  /** Of the event: a receipt names what it is of. */
  readonly id: string;
  readonly soldOn: string;
  readonly buyer: string | null;
  readonly price: number | null;
  readonly currency: string;
  readonly paidOn: string | null;
  readonly handedOverOn: string | null;
  readonly how: Handover | null;
  readonly animal: {
    readonly number: string;
    readonly name: string | null;
    readonly label: string;
    readonly sex: string;
    readonly hatchedOn: string | null;
  };
}

const NOT_RECORDED = 'not recorded';

export function drawReceipt(receipt: Receipt): TDocumentDefinitions {
  const { animal, collection } = receipt;
  const reader = new Reader(receipt.reader);
  const dayOr = (day: string | null, otherwise: string): string =>
    day === null ? otherwise : reader.day(day);
  const handedOver = receipt.how ? `, ${HANDOVER_WORDS[receipt.how]}` : '';
  return {
    pageSize: 'A5',
    pageMargins: [34, 34, 34, 34],
    info: { title: `Receipt ${animal.number}`, author: collection },
    content: [
      { text: 'Receipt', fontSize: 22, bold: true },
      { text: collection, color: SOFT, margin: [0, 0, 0, 10] },
      {
        layout: 'lightHorizontalLines',
        table: {
          widths: [92, '*'],
          body: [
            factLine('Sold on', reader.day(receipt.soldOn)),
            factLine('Buyer', receipt.buyer ?? NOT_RECORDED),
            factLine('Animal', [
              { text: `${animal.number} ${animal.name ?? ''}`, bold: true },
              { text: `Ball python (Python regius), ${animal.label}`, fontSize: 9 },
            ]),
            factLine('Sex', animal.sex),
            factLine('Hatched', dayOr(animal.hatchedOn, NOT_RECORDED)),
            factLine(
              'Price',
              receipt.price === null ? NOT_RECORDED : reader.money(receipt.price, receipt.currency),
            ),
            factLine('Paid', dayOr(receipt.paidOn, 'not yet')),
            factLine('Handed over', `${dayOr(receipt.handedOverOn, 'not yet')}${handedOver}`),
          ],
        },
      },
      {
        text: `Receipt ${receipt.id}. Printed ${reader.day(receipt.printedOn)}.`,
        fontSize: 8,
        color: SOFT,
        margin: [0, 14, 0, 0],
      },
    ],
  };
}

/** A receipt of a sale as a PDF. Run in a thread. */
export function receiptPdf(receipt: Receipt): Promise<Uint8Array> {
  return toPdf(drawReceipt(receipt));
}
