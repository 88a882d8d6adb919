import {
  createCatalogue,
  pairingCautions,
  parseParent,
  toAdditions,
  visibleOutcomes,
  type CatalogueChange,
  type VisibleOutcome,
} from '@karyotome/core';
import { expose } from 'comlink';

export interface OddsRequest {
  /** Labels in trade shorthand: one dam, one or more sires. */
  readonly dam: string;
  readonly sires: readonly string[];
  /** What the collection adds to the catalogue. */
  readonly entries: readonly CatalogueChange[];
}
export interface SireOdds {
  readonly outcomes: readonly VisibleOutcome[];
  readonly cautions: readonly string[];
}

const SHOWN = 60;

const api = {
  /** What a dam can produce with each sire, in their order. */
  odds(request: OddsRequest): SireOdds[] {
    const catalogue = createCatalogue(toAdditions(request.entries));
    const dam = parseParent(request.dam, 'female', catalogue).parent;
    return request.sires.map((text) => {
      const sire = parseParent(text, 'male', catalogue).parent;
      return {
        outcomes: visibleOutcomes(sire, dam, SHOWN, catalogue),
        cautions: [...new Set(pairingCautions(sire, dam, catalogue))],
      };
    });
  },
};
export type OddsApi = typeof api;
expose(api);
