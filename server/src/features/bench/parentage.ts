import { type Work } from '../../db/work.ts';
import { parentageRows } from './bench.queries.ts';

/** A clutch's dam, its candidate sires with their shares, and its young. */
export interface Parentage {
  readonly damId: string;
  readonly sires: readonly { readonly id: string; readonly share: number }[];
  readonly mateIds: readonly string[];
}

export async function parentageOf(work: Work, clutchId: string): Promise<Parentage> {
  const [row] = await parentageRows(work, { clutchId });
  const { damId, sires, mateIds } = row!;
  const total = sires.reduce((sum, { weight }) => sum + weight, 0);
  return {
    damId,
    sires: sires.map(({ id, weight }) => ({ id, share: weight / total })),
    mateIds: mateIds ?? [],
  };
}
