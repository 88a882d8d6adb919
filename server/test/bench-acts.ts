import type { BenchView, HatchlingView } from '@karyotome/contract';
import { CATALOGUE, rank } from '@karyotome/core';
import { ago, TODAY } from './days.ts';
import { maker, type TestClient } from './test-app.ts';

export const version = (value: number) => ({ 'If-Match': `"${value}"` });

/** What is done at the bench, over the API. */
export function benchActsOf(owner: () => TestClient) {
  const { created, animal } = maker(owner, ago);
  /** A hatched clutch of a pair. */
  async function clutchOf(
    dam: string,
    sires: string[],
    hatched: number,
    hatchedOn = ago(20),
  ): Promise<{ clutch: string; young: string[] }> {
    const pairing = await created('/pairings', {
      season: Number(TODAY.slice(0, 4)),
      damId: dam,
      sires: sires.map((animalId) => ({ animalId, weight: 1 })),
      startedOn: ago(200),
    });
    const clutch = await created('/clutches', { pairingId: pairing, laidOn: ago(80), eggs: hatched });
    const done = await owner().post(`/clutches/${clutch}/hatchlings`, { hatchedOn, hatched }, version(1));
    return { clutch, young: (done.body as { ids: string[] }).ids };
  }
  const benchOf = async (clutch: string): Promise<BenchView> =>
    (await owner().get(`/clutches/${clutch}/bench`)).body as BenchView;
  const identify = (id: string, genes: string, more: object = {}) =>
    owner().post(`/animals/${id}/records`, {
      kind: 'identification',
      on: ago(5),
      body: { genes, sure: 'certain', by: 'Ida', ...more },
    });
  return { created, animal, clutchOf, benchOf, identify };
}

/** How likely a hatchling shows something, by what was seen of it. */
export const oddsOf = (hatchling: HatchlingView, phenotype: string): number =>
  rank(hatchling.hypotheses, hatchling.observations, CATALOGUE).ranking.genes.find(
    (gene) => gene.phenotype === phenotype,
  )?.p ?? 0;
