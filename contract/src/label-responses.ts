import type { LabelKind } from './bench-requests.ts';

/** The label that was printed last. */
export interface PrintedLabelView {
  issue: number;
  kind: LabelKind;
  printedAt: string;
  /** What it would say now differs from what it says. */
  isOutOfDate: boolean;
}
