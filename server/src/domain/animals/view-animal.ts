import { isGone, type AnimalView, type RecordView } from '@karyotome/contract';
import { appetite, inShed, judgeMove, recordGaps, saleLacks, type History } from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';
import { claimViews, supportedClaims } from '../genetics/claim-views.ts';
import { conflictsNear, excludedOf } from '../genetics/inferred-of-animal.ts';
import { geneticsSoon, soonOr, type Genetics } from '../genetics/genetics.service.ts';
import { printedLabels } from '../labels/printed-labels.ts';
import { pictureViews, recordViews, summaries } from './animals.repository.ts';
import { conflictView } from '../genetics/contradictions.service.ts';
import { herdOf } from '../husbandry/load-herd.ts';
import { saleRulesOf } from '../sales/sale-rules.ts';
import { careOf } from './animal-care.ts';
import { parentsOf } from './kin.ts';
import { clutchOfAnimal, openPublication } from './animals.queries.ts';

const GENERATIONS = 3;

/** One animal's page: its record, kin, claims with what they rest on, and what is advised. */
export async function viewAnimal(work: Work, id: string): Promise<AnimalView> {
  const row = (
    await work.models.animals.findOne({
      where: { collectionId: work.actor.collectionId, id },
      transaction: work.transaction,
    })
  )?.get();
  if (!row) throw notFound('This animal');
  const genetics = await geneticsSoon(work);
  const claims = await soonOr(work, supportedClaims(genetics, id));
  const everybody = await summaries(work, genetics);
  const byId = new Map(everybody.map((animal) => [animal.id, animal]));
  const summary = byId.get(id)!;
  const records: RecordView[] = await recordViews(work, [id]);
  const herd = await herdOf(work, id);
  const { history } = herd.animal(id);
  const { enclosures } = herd;
  const saleRules = (await saleRulesOf(work)).rules;
  const pictures = await pictureViews(work, id);
  const tub = row.tubId === null ? undefined : enclosures.tubs.get(row.tubId);
  return {
    ...summary,
    note: row.note,
    damId: row.damId,
    sireId: row.sireId,
    records,
    parents: parentsOf(genetics, byId, id, GENERATIONS),
    offspring: everybody
      .filter(({ id: other }) => isParentOf(genetics, id, other))
      .map(({ id: other, number, label, sex }) => ({ id: other, number, label, sex })),
    clutch: row.clutchId ? await clutchOf(work, row.clutchId) : null,
    isGeneticsPending: genetics.isPending || claims === null,
    claims: await claimViews(work, genetics, id, claims ?? [], byId),
    excluded: excludedOf(genetics, id),
    conflicts: conflictsNear(genetics, id).map((conflict) => conflictView(genetics, conflict, byId)),
    advice: herd.advice(id),
    moveOutcomes: Object.fromEntries(
      history.moves.map((move) => [move.id, judgeMove(move, history, work.today)]),
    ),
    appetite: appetite(history),
    nextMeal: herd.meal(id),
    care: careOf(herd, saleRules, id),
    inShed: inShed(history.sheds, work.today),
    steps: tub ? (enclosures.ladders.get(tub.ladderId)?.steps ?? []) : [],
    currentStep: tub?.step ?? null,
    pictures,
    lacks: isGone(row) ? [] : saleLacks(history, saleRules),
    gaps: gapsOf(records, history, pictures.length),
    publication: await publicationOf(work, id),
    printedLabel: (await printedLabels(work, genetics, byId, [id])).get(id) ?? null,
  };
}

function isParentOf(genetics: Genetics, parent: string, child: string): boolean {
  const animal = genetics.recorded.get(child);
  return animal?.dam === parent || (animal?.sires ?? []).some((sire) => sire.id === parent);
}

/** @param records - the newest first */
function gapsOf(records: readonly RecordView[], history: History, pictures: number): AnimalView['gaps'] {
  const standing = records.filter(({ voided }) => voided === null);
  const sexed = standing.find((record) => record.kind === 'sex');
  const identified = standing.find((record) => record.kind === 'identification');
  return recordGaps(history, {
    sexSure: sexed?.body.sure ?? null,
    identifiedSure: identified?.body.sure ?? null,
    pictures,
  });
}

async function clutchOf(work: Work, clutchId: string): Promise<AnimalView['clutch']> {
  const [clutch] = await clutchOfAnimal(work, { clutchId });
  return clutch ?? null;
}

async function publicationOf(work: Work, animalId: string): Promise<AnimalView['publication']> {
  const [publication] = await openPublication(work, { animalId });
  return publication ?? null;
}
