import {
  locusById,
  pairingCautions,
  parseParent,
  visibleOutcomes,
  type VisibleOutcome,
} from '@karyotome/core';

export interface OddsRequest {
  readonly id: number;
  /** Labels in trade shorthand: one dam, one or more sires. */
  readonly dam: string;
  readonly sires: readonly string[];
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
  const dam = parseParent(data.dam, 'female', locusById).parent;
  const bySire = data.sires.map((text) => {
    const sire = parseParent(text, 'male', locusById).parent;
    return {
      outcomes: visibleOutcomes(sire, dam, SHOWN),
      cautions: [...new Set(pairingCautions(sire, dam))],
    };
  });
  const answer: OddsAnswer = { id: data.id, bySire };
  self.postMessage(answer);
});
