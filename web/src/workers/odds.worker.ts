import {
  createCatalogue,
  pairingCautions,
  parseParent,
  toAdditions,
  visibleOutcomes,
  type CatalogueEntry,
  type VisibleOutcome,
} from '@karyotome/core';

export interface OddsRequest {
  readonly id: number;
  /** Labels in trade shorthand: one dam, one or more sires. */
  readonly dam: string;
  readonly sires: readonly string[];
  /** What the collection adds to the catalogue. */
  readonly entries: readonly CatalogueEntry[];
}
export interface OddsAnswer {
  readonly id: number;
  readonly bySire: readonly {
    readonly outcomes: readonly VisibleOutcome[];
    readonly cautions: readonly string[];
  }[];
}

const SHOWN = 60;

self.addEventListener('message', ({ data }: MessageEvent<OddsRequest>) => {
  const catalogue = createCatalogue(toAdditions(data.entries));
  const dam = parseParent(data.dam, 'female', catalogue).parent;
  const bySire = data.sires.map((text) => {
    const sire = parseParent(text, 'male', catalogue).parent;
    return {
      outcomes: visibleOutcomes(sire, dam, SHOWN, catalogue),
      cautions: [...new Set(pairingCautions(sire, dam, catalogue))],
    };
  });
  const answer: OddsAnswer = { id: data.id, bySire };
  self.postMessage(answer);
});
