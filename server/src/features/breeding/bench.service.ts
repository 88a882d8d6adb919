import type { BenchView, HatchlingView, RecordView } from '@karyotome/contract';
import { pairingCautions, visibleOutcomes, type VisibleOutcome } from '@karyotome/core';
import { select, type Work } from '../../db/work.ts';
import { recordViews, summaries } from '../animals/animals.repository.ts';
import { kinView, parentsOf } from '../animals/kin.ts';
import { geneticsOf, sireOdds } from '../genetics/genetics.service.ts';
import { parentsBefore, whyPairingCannot } from '../genetics/identification-check.ts';
import { clutchSummaries } from './pairings.service.ts';
import { clutchFit } from './clutch-fit.ts';
import { findClutch, proposeNumbers } from './clutches.service.ts';

const OUTCOMES_SHOWN = 200;

/** One clutch side by side: parents, what the pairing can produce, and each hatchling as recorded so far. */
export async function viewBench(work: Work, clutchId: string): Promise<BenchView> {
  const clutch = await findClutch(work, clutchId);
  const genetics = await geneticsOf(work);
  const [pairing] = await select<{ damId: string; sires: { id: string; weight: number }[] }>(
    work,
    `select p.dam_id as "damId",
            (select json_agg(json_build_object('id', s.sire_id, 'weight', s.weight) order by s.weight desc, s.sire_id)
               from pairing_sires s where s.collection_id = p.collection_id and s.pairing_id = p.id) as sires
       from pairings p where p.collection_id = :collectionId and p.id = :id`,
    { id: clutch.pairingId },
  );
  const { damId, sires } = pairing!;
  const everybody = await summaries(work, genetics);
  const byId = new Map(everybody.map((animal) => [animal.id, animal]));
  const mates = everybody.filter((animal) => animal.clutchId === clutchId);
  const parents = await parentsBefore(
    genetics,
    [damId, ...sires.map((sire) => sire.id)],
    mates.map((mate) => mate.id),
  );
  const dam = parents.get(damId)!;
  const records = await recordViews(
    work,
    mates.map((mate) => mate.id),
  );
  const total = sires.reduce((sum, sire) => sum + sire.weight, 0);
  const { pairingId: _, ...summary } = (await clutchSummaries(work)).find((row) => row.id === clutchId)!;
  const outcomes = mixOutcomes(
    sires.map(({ id, weight }) => ({
      weight: weight / total,
      outcomes: visibleOutcomes(parents.get(id)!, dam, OUTCOMES_SHOWN, genetics.catalogue),
    })),
  );
  const identified = mates.flatMap((mate) => genetics.recorded.get(mate.id)?.identification?.genes ?? []);
  return {
    clutch: { ...summary, incubationC: clutch.incubationC, note: clutch.note, version: clutch.version },
    dam: { ...kinView(genetics, byId, 'dam', damId), parents: parentsOf(genetics, byId, damId, 1) },
    sires: sires.map(({ id, weight }) => ({
      ...kinView(genetics, byId, 'sire', id, weight / total),
      parents: parentsOf(genetics, byId, id, 1),
    })),
    outcomes,
    cautions: [
      ...new Set(sires.flatMap(({ id }) => pairingCautions(parents.get(id)!, dam, genetics.catalogue))),
    ],
    hatchlings: await Promise.all(mates.map((mate) => toHatchling(mate))),
    fit: clutchFit(outcomes, identified, genetics.catalogue),
    nextNumbers: clutch.hatchedOn
      ? []
      : await proposeNumbers(work, clutch, clutch.eggs - (clutch.slugs ?? 0)),
  };

  async function toHatchling(mate: (typeof mates)[number]): Promise<HatchlingView> {
    const own: RecordView[] = records.filter((record) => record.animalId === mate.id);
    const identification = own.find((record) => record.kind === 'identification' && record.voided === null);
    const genes = identification?.kind === 'identification' ? identification.body.genes : null;
    return {
      ...mate,
      records: own,
      impossible: genes ? await whyPairingCannot(genetics, mate.id, genes) : [],
      sires: [...sireOdds(genetics, mate.id)].map(([id, p]) => ({ number: byId.get(id)!.number, p })),
    };
  }
}

/** The outcomes over several candidate sires, by their weights. */
function mixOutcomes(
  candidates: readonly { weight: number; outcomes: readonly VisibleOutcome[] }[],
): VisibleOutcome[] {
  if (candidates.length === 1) return [...candidates[0]!.outcomes];
  const byLabel = new Map<string, VisibleOutcome>();
  for (const { weight, outcomes } of candidates) {
    for (const outcome of outcomes) {
      const known = byLabel.get(outcome.label);
      byLabel.set(outcome.label, {
        ...outcome,
        // What is carried depends on the sire: with several, the odds of it are left to each hatchling's own page.
        carries: known && known.carries.join() !== outcome.carries.join() ? [] : outcome.carries,
        p: (known?.p ?? 0) + weight * outcome.p,
        pMale: (known?.pMale ?? 0) + weight * outcome.pMale,
        pFemale: (known?.pFemale ?? 0) + weight * outcome.pFemale,
      });
    }
  }
  return [...byLabel.values()].toSorted((a, b) => b.p - a.p || (a.label < b.label ? -1 : 1));
}
