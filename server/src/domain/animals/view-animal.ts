import type { AnimalView, ClaimView, RecordView } from '@karyotome/contract';
import {
  appetite,
  inShed,
  isCertain,
  isPossible,
  judgeMove,
  type Claim,
  type SupportingRecord,
} from '@karyotome/core';
import { type Work } from '../../db/work.ts';
import { notFound } from '../../refusal.ts';
import { claimsOf, conflictsNear, excludedOf, ruleOf, supportOf } from '../genetics/inferred-of-animal.ts';
import { geneticsOf, geneticsSoon, soonOr, type Genetics } from '../genetics/genetics.service.ts';
import { printedLabels } from '../labels/printed-labels.ts';
import { pictureViews, recordViews, summaries } from './animals.repository.ts';
import { supportViews } from '../genetics/support-views.ts';
import { conflictView } from '../genetics/contradictions.service.ts';
import { herdOf } from '../husbandry/load-herd.ts';
import { careOf } from './animal-care.ts';
import { parentsOf } from './kin.ts';
import { clutchOfAnimal, openPublication } from './animals.queries.ts';

const GENERATIONS = 3;

/** One animal's page: its record, kin, claims with what they rest on, and what is advised. */
export async function viewAnimal(
  work: Work,
  id: string,
  { isPatient = false }: { isPatient?: boolean } = {},
): Promise<AnimalView> {
  const row = (
    await work.models.animals.findOne({
      where: { collectionId: work.actor.collectionId, id },
      transaction: work.transaction,
    })
  )?.get();
  if (!row) throw notFound('This animal');
  const genetics = await (isPatient ? geneticsOf(work) : geneticsSoon(work));
  const supports = supportsOf(genetics, id);
  const claims = isPatient ? await supports : await soonOr(work, supports);
  const everybody = await summaries(work, genetics);
  const byId = new Map(everybody.map((animal) => [animal.id, animal]));
  const summary = byId.get(id)!;
  const records: RecordView[] = await recordViews(work, [id]);
  const herd = await herdOf(work, id);
  const { history } = herd.animal(id);
  const { enclosures } = herd;
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
    care: careOf(herd, id),
    inShed: inShed(history.sheds, work.today),
    steps: tub ? (enclosures.ladders.get(tub.ladderId)?.steps ?? []) : [],
    currentStep: tub?.step ?? null,
    pictures: await pictureViews(work, id),
    publication: await publicationOf(work, id),
    printedLabel: (await printedLabels(work, genetics, byId, [id])).get(id) ?? null,
  };
}

function isParentOf(genetics: Genetics, parent: string, child: string): boolean {
  const animal = genetics.recorded.get(child);
  return animal?.dam === parent || (animal?.sires ?? []).some((sire) => sire.id === parent);
}

async function clutchOf(work: Work, clutchId: string): Promise<AnimalView['clutch']> {
  const [clutch] = await clutchOfAnimal(work, { clutchId });
  return clutch ?? null;
}

async function publicationOf(work: Work, animalId: string): Promise<AnimalView['publication']> {
  const [publication] = await openPublication(work, { animalId });
  return publication ?? null;
}

interface Supported {
  readonly claim: Claim;
  readonly support: SupportingRecord[] | null;
}

/** An animal's claims, each with what it rests on. */
function supportsOf(genetics: Genetics, animalId: string): Promise<Supported[]> {
  return Promise.all(
    claimsOf(genetics, animalId).map(async (claim) => ({
      claim,
      support: await supportOf(genetics, animalId, claim),
    })),
  );
}

/** The same as it is answered, with the records by their numbers. */
async function claimViews(
  work: Work,
  genetics: Genetics,
  animalId: string,
  claims: readonly Supported[],
  byId: ReadonlyMap<string, { number: string }>,
): Promise<ClaimView[]> {
  const records = await supportViews(
    work,
    genetics,
    claims.flatMap(({ support }) => support ?? []),
    byId,
  );
  return claims.map(({ claim, support }) => ({
    ...claim,
    certain: !isPossible(claim.kind) && isCertain(claim.p),
    rule: ruleOf(genetics, animalId, claim, support),
    support: support?.map(({ record }) => records.get(record)!) ?? null,
  }));
}
