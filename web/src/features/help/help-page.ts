import type { TradeWord } from '@karyotome/words';

/** What a place is for, its keys, and three things that one may not have noticed. */
export interface HelpPage {
  /** The addresses it is about. */
  readonly at: RegExp;
  /** As the place is called, with the place that it is part of. */
  readonly title: string;
  readonly purpose: string;
  readonly keys?: readonly (readonly [keys: string, act: string])[];
  readonly hints: readonly [string, string, string];
  /** Words of the trade that one meets there. */
  readonly words?: readonly TradeWord[];
}
